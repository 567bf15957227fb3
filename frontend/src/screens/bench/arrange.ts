/** Which vehicles are shown, and in what order. */
import type { VehicleCard } from "../../api/client";

export const ORDERS = { name: "by name", changed: "last changed first" } as const;
export type Arranged = keyof typeof ORDERS;

/** Vehicles whose name or notes hold every word that was typed, in an order. */
export function arranged(vehicles: VehicleCard[], typed: string, order: Arranged): VehicleCard[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const text = ({ name, document }: VehicleCard) => `${name} ${String(document.notes ?? "")}`.toLowerCase();
  const matching = vehicles.filter((vehicle) => words.every((word) => text(vehicle).includes(word)));
  return matching.sort((a, b) =>
    order === "name" ? a.name.localeCompare(b.name) : b.changed_at.localeCompare(a.changed_at),
  );
}
