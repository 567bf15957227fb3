/** Loads in words and marks. Pure. */
import type { LoadedPart, LoadRow, Loads } from "../../api/client";
import { show, type Units } from "../../ui/fields/units";

/** "0.53 N·m of 0.9 N·m", as far as both are known. */
export function against(units: Units, row: LoadRow): string {
  if (!row.dimension) return row.demand === null ? "" : `${row.demand} wanted, ${row.capacity} there`;
  const text = (value: number | null) => {
    if (value === null) return "";
    const shown = show(units, row.dimension, value);
    return `${shown.number} ${shown.unit}`;
  };
  if (row.capacity === null) return `${text(row.demand)}; what it stands is not known`;
  if (row.demand === null) return `it stands ${text(row.capacity)}`;
  return `${text(row.demand)} of ${text(row.capacity)}`;
}

/** All moments that rows have marks in, in the order in which they come. */
export function momentsOf(loads: Loads): string[] {
  const all = loads.parts.flatMap((part) => part.rows.flatMap((row) => row.marks.map((mark) => mark.moment)));
  return [...new Set(all)];
}

/** The use of a part that its bar shows: the largest of all moments, or of the chosen one; null where none is known. */
export function shareOf(part: LoadedPart, moment: string): number | null {
  if (!moment) return part.rows[0]?.use ?? null;
  const uses = part.rows.flatMap((row) => row.marks.filter((m) => m.moment === moment).map((m) => m.use));
  return uses.length ? Math.max(...uses) : null;
}

/** All rows as a table for a spreadsheet, in SI. */
export function csv(loads: Loads): string {
  const head = ["part", "check", "moment", "demand", "capacity", "use", "state", "assumed"];
  const rows = loads.parts.flatMap((part) =>
    part.rows.map((row) => [
      row.part,
      row.title,
      row.moment,
      row.demand ?? "",
      row.capacity ?? "",
      row.use ?? "",
      row.state,
      row.assumed.join("; "),
    ]),
  );
  return [head, ...rows].map((row) => row.map(cell).join(",")).join("\r\n");
}

const cell = (value: string | number) =>
  /[",\n]/.test(String(value)) ? `"${String(value).replaceAll('"', '""')}"` : String(value);
