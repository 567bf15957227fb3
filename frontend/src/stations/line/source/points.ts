/** Curves as text: a point a line, two values with or without units, as pasted from a spreadsheet. Pure. */
import { typedText } from "../../../ui/fields/typed";

const PAIR = /^\s*([\d.,]+\s*[^\d\s,;.-][^\s,;]*|[\d.,]+)\s*[\s,;]\s*(.+?)\s*$/;
const BARE = /^[\d.,]+$/;

export function pointsText(points: [unknown, unknown][]): string {
  return points
    .map((point) => (Array.isArray(point) ? point : [point]).map((v) => typedText(v)).join("   "))
    .join("\n");
}

/** Each line as a pair; a bare number gets the unit of its column. What is no pair is kept for the core to refuse. */
export function parsePoints(text: string, first: string, second: string): unknown[] {
  return text
    .split("\n")
    .filter((line) => line.trim())
    .map((line) => {
      const [x, y] = line.includes("\t") ? line.split("\t") : (PAIR.exec(line)?.slice(1) ?? [line.trim()]);
      if (x === undefined || y === undefined) return [line.trim()];
      return [withUnit(x.trim(), first), withUnit(y.trim(), second)];
    });
}

const withUnit = (text: string, unit: string) => (BARE.test(text) ? `${text} ${unit}` : text);
