import type { PartLine, PurchaseState, Standing } from "../../api/client";
import { weekday } from "../../ui/when";

/** The states of a line in their order, with what a button says. */
export const STATES: [PurchaseState, string][] = [
  ["needed", "needed"],
  ["ordered", "ordered"],
  ["here", "here"],
  ["fitted", "fitted"],
];

/** How a line stands: fitted or here, ordered, or still to be bought. */
export function standing(line: PartLine): Standing {
  if (line.state === "fitted" || line.state === "here") return "holds";
  return line.state === "ordered" ? "tight" : "misses";
}

/** Where a line comes from, in a few words. */
export function source(line: PartLine): string {
  if (line.state === "ordered") return line.expected ? `by ${weekday(line.expected)}` : "ordered";
  if (line.to_buy === 0) return line.owned > line.number ? `${line.owned} owned` : "owned";
  return line.owned > 0 ? `${line.owned} of ${line.number} owned` : "to buy";
}

export const days = (count: number, assumed: boolean) =>
  `${Math.round(count * 10) / 10} days${assumed ? ", assumed" : ""}`;
