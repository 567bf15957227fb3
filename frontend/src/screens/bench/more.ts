/** What the button of a card's menu is given, and how it looks. */
import type { VehicleCard } from "../../api/client";

export interface CardMenuProps {
  vehicle: VehicleCard;
  mayEdit: boolean;
}

/** How the button looks, whether its menu has come or not. */
export const MORE = { size: "xs", variant: "ghost", position: "relative", zIndex: "1" } as const;
