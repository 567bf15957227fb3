import type { KeyboardEvent } from "react";

/** Enter and the arrows go from row to row in one column. */
export function walk(event: KeyboardEvent, table: HTMLTableElement | null): void {
  const by = { ArrowDown: 1, Enter: 1, ArrowUp: -1 }[event.key];
  const cell = (event.target as HTMLElement).closest("td");
  if (by === undefined || !cell || !table || event.target instanceof HTMLSelectElement) return;
  event.preventDefault();
  const rows = [...table.querySelectorAll<HTMLTableRowElement>("tr[data-part]")];
  const next = rows[rows.indexOf(cell.parentElement as HTMLTableRowElement) + by];
  const field = next?.cells[cell.cellIndex]?.querySelector<HTMLInputElement>("input, select");
  if (field) field.focus();
  else (event.target as HTMLElement).blur();
}
