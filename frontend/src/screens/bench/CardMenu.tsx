import { IconButton } from "@chakra-ui/react";
import { lazy, Suspense, useState } from "react";
import type { VehicleCard } from "../../api/client";

const OpenMenu = lazy(() => import("./OpenMenu"));

export interface CardMenuProps {
  vehicle: VehicleCard;
  mayEdit: boolean;
}

/** How the button looks, whether its menu has come or not. */
export const MORE = { size: "xs", variant: "ghost", position: "relative", zIndex: "1" } as const;

/** What else can be done with a vehicle on the bench: the menu itself comes when it is first wanted. */
export function CardMenu({ vehicle, mayEdit }: CardMenuProps) {
  const [wanted, setWanted] = useState(false);
  const button = (
    <IconButton
      {...MORE}
      aria-label={`More for ${vehicle.name}`}
      aria-haspopup="menu"
      onClick={() => setWanted(true)}
    >
      ⋯
    </IconButton>
  );
  if (!wanted) return button;
  return (
    <Suspense fallback={button}>
      <OpenMenu vehicle={vehicle} mayEdit={mayEdit} />
    </Suspense>
  );
}
