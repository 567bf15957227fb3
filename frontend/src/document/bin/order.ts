/** Which parts of a kind are shown, and in which order. Pure. */
import type { Units } from "../../ui/fields/units";
import type { PartDocument } from "./bin";
import { cellText, type PartKind } from "./cells";

export interface Order {
  path: string;
  down: boolean;
}

/** What of a kind is looked for: words that stand in a part, and whether it has to be owned. */
export interface Filter {
  words: string;
  owned: boolean;
}

/** Whether a part is among those looked for. */
export function matches(units: Units, kind: PartKind, part: PartDocument, filter: Filter): boolean {
  if (filter.owned && !(Number(part.owned) > 0)) return false;
  const wanted = filter.words.trim().toLowerCase().split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return true;
  const held = [part.id, ...kind.columns.map((column) => cellText(units, column, part))]
    .join(" ")
    .toLowerCase();
  return wanted.every((word) => held.includes(word));
}

/** Parts in the order of one column; as they stand without one. */
export function sorted(
  units: Units,
  kind: PartKind,
  parts: PartDocument[],
  order: Order | null,
): PartDocument[] {
  const column = kind.columns.find((c) => c.path === order?.path);
  if (!order || !column) return parts;
  const text = (part: PartDocument) => cellText(units, column, part);
  const compare = (a: PartDocument, b: PartDocument) =>
    text(a).localeCompare(text(b), undefined, { numeric: true }) * (order.down ? -1 : 1);
  // What has no value goes last either way.
  return [...parts].sort((a, b) => Number(text(a) === "") - Number(text(b) === "") || compare(a, b));
}
