/** Cells of the bin as texts: what a part holds, as it was typed, and back. What it means the core decides. */
import type { Vocabulary } from "../../api/client";
import { typedText } from "../../ui/fields/typed";
import { completed, type Units } from "../../ui/fields/units";
import { at, withValue } from "../document";
import type { PartDocument } from "./bin";

export type PartKind = Vocabulary["parts"][number];
export type Column = PartKind["columns"][number];

/** A cell as shown: without the unit where that is the one in the column's head. */
export function cellText(units: Units, column: Column, part: PartDocument): string {
  const value = at(part, column.path);
  if (Array.isArray(value)) {
    return column.type === "curve"
      ? value.map((point) => (Array.isArray(point) ? point.join(" ") : String(point))).join("; ")
      : value.join(" ");
  }
  const text = typedText(value);
  if (column.type !== "quantity") return text;
  const unit = units.entry(column.dimension)[units.system].typed;
  return unit && text.endsWith(` ${unit}`) ? text.slice(0, -unit.length - 1) : text;
}

const NUMBER = /^[-+]?\d+(\.\d+)?$/;
const POINT = /^\s*(\S+\s*[^\d\s,]\S*)[\s,]+(\S+\s*[^\d\s,]\S*)\s*$/;

/** A part with another text in a cell; an empty one takes the value away, and what is left empty around it. */
export function withCell(units: Units, column: Column, part: PartDocument, text: string): PartDocument {
  const value = text.trim() === "" ? undefined : cellValue(units, column, text.trim());
  return pruned(withValue(part, column.path, value), column.path);
}

function cellValue(units: Units, column: Column, text: string): unknown {
  switch (column.type) {
    case "quantity": {
      const whole = completed(units, column.dimension, text);
      return units.entry(column.dimension).metric.symbol === "" ? number(whole) : whole;
    }
    case "whole":
      return number(text);
    case "ratios":
      return text.split(/[\s;x×]+/).map(number);
    case "curve":
      return text.split(";").map((point) => POINT.exec(point)?.slice(1, 3) ?? [point.trim()]);
    default:
      return text;
  }
}

/** The number that a text is; anything else stays as it is, for the core to refuse with a remedy. */
function number(text: string): number | string {
  return NUMBER.test(text) ? Number(text) : text;
}

function pruned(part: PartDocument, path: string): PartDocument {
  const outer = path.split(".").slice(0, -1);
  if (outer.length === 0) return part;
  const place = outer.join(".");
  const held = at(part, place) as Record<string, unknown> | undefined;
  if (held && Object.keys(held).length > 0) return part;
  return pruned(withValue(part, place, undefined), place);
}

/** What a part is told by in a sentence: its name, else what its first columns hold. */
export function calledPart(units: Units, kind: PartKind, part: PartDocument): string {
  if (typeof part.name === "string" && part.name) return part.name;
  const matching = kind.columns.map((column) => cellText(units, column, part)).filter(Boolean);
  return [kind.one, ...matching.slice(0, 2)].join(" ");
}

/** An id that no part has yet. */
export function freeId(kind: string, taken: ReadonlySet<string>): string {
  let n = 1;
  while (taken.has(`${kind}-${n}`)) n += 1;
  return `${kind}-${n}`;
}
