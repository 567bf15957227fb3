/** Points of lines: their place at a value, their paths, readings of a table, text for a spreadsheet. Pure. */
import { nice, ticks } from "d3-array";

/** About so many ticks on an axis that starts at 0. */
export const TICKS = 4;
/** How much higher than its largest value an axis is. */
const ROOM = 1.08;

/** Width of a character on an axis, and the room between two labels, pixels. */
const CHARACTER = 7.3;
const APART = 10;

export type Point = [number, number];

export interface Series {
  key: string;
  name: string;
  colour: string;
  points: Point[];
  dash?: string;
  thin?: boolean;
  /** Share of the chart's width at which its name stands; none where it would crowd. */
  labelAt?: number;
  labelBelow?: boolean;
}

/** Where the plot lies in the chart; what is laid over it is placed by the same numbers (see `.cursor` of the theme). */
const SIDES = { left: 42, right: 18, top: 14, bottom: 24 };

/** The plot in a chart of so many pixels, with what turns values into them; both axes start at 0. */
export function plotOf(across: number, high: number, most: number, highest: number) {
  const width = Math.max(1, across - SIDES.left - SIDES.right);
  const height = Math.max(1, high - SIDES.top - SIDES.bottom);
  const { left, top } = SIDES;
  const bottom = top + height;
  return {
    ...{ left, top, bottom, width, height, most, highest },
    x: (value: number) => left + (width * value) / most,
    y: (value: number) => bottom - (height * value) / highest,
  };
}

type Plot = Pick<ReturnType<typeof plotOf>, "x" | "y">;

/** A line straight from point to point, to a tenth of a pixel. */
export function linePath(plot: Plot, points: Point[]): string {
  return points
    .map(([x, y], i) => `${i === 0 ? "M" : "L"}${plot.x(x).toFixed(1)} ${plot.y(y).toFixed(1)}`)
    .join("");
}

/** What lies between a low and a high value at each x, as a closed path. */
export function bandPath(plot: Plot, between: [number, number, number][]): string {
  const low = between.map(([x, y]): Point => [x, y]);
  const high = between.map(([x, , y]): Point => [x, y]);
  return `${linePath(plot, [...low, ...high.reverse()])}Z`;
}

/** Round numbers from 0 to `max`, as many as can be written side by side over so many pixels, about one each 48. */
export function ticksThatFit(max: number, width: number, format: (value: number) => string): number[] {
  const apart = (marks: number[]) =>
    (marks.length - 1) * (CHARACTER * Math.max(...marks.map((v) => format(v).length)) + APART) <= width;
  for (let count = Math.max(3, Math.round(width / 48)); count > 1; count--) {
    const marks = ticks(0, max, count);
    if (apart(marks)) return marks;
  }
  return ticks(0, max, 1);
}

/** What is written at the marks of an axis: the last one carries the unit, and one that it would run into is left out. */
export function marked(
  marks: number[],
  unit: string,
  format: (value: number) => string,
  place: (value: number) => number,
): string[] {
  const texts = marks.map((mark, i) => (i === marks.length - 1 ? `${format(mark)} ${unit}` : format(mark)));
  const [before, last] = texts.slice(-2);
  const room = place(marks.at(-1) ?? 0) - place(marks.at(-2) ?? 0);
  if (last && before && (CHARACTER * (before.length + last.length) + APART) / 2 > room)
    texts[texts.length - 2] = "";
  return texts;
}

/** A line at x, straight between its points; nothing outside them. */
export function valueAt(points: Point[], x: number): number | null {
  const after = points.findIndex(([px]) => px >= x);
  const [one, two] = [points[after - 1], points[after]];
  if (!two) return null;
  if (!one) return two[0] === x ? two[1] : null;
  return one[1] + ((two[1] - one[1]) * (x - one[0])) / (two[0] - one[0] || 1);
}

/** Every line at about so many values of x, for reading. */
export function readings(
  series: Series[],
  max: number,
  count: number,
): { x: number; values: (number | null)[] }[] {
  return Array.from({ length: count + 1 }, (_, i) => {
    const x = (max * i) / count;
    return { x, values: series.map((s) => valueAt(s.points, x)) };
  });
}

/** Comma-separated values with a head; text that a spreadsheet would take for a formula is quoted as text. */
export function csv(x: string, series: Series[], max: number, count: number): string {
  const cell = (text: string) => `"${/^[=+\-@]/.test(text) ? "'" : ""}${text.replaceAll('"', '""')}"`;
  const head = [x, ...series.map((s) => s.name)].map(cell).join(",");
  const lines = readings(series, max, count).map((row) =>
    [row.x, ...row.values].map((v) => (v === null ? "" : String(Number(v.toPrecision(6))))).join(","),
  );
  return [head, ...lines].join("\r\n");
}

/** The point of a line at a share of the chart's width, or its last inside the chart. */
export function labelPlace(s: Series, width: number, top: number): Point | null {
  if (s.labelAt === undefined) return null;
  const x = s.labelAt * width;
  const inside = s.points.filter(([px, py]) => px <= width && py <= top);
  const after = inside.findIndex(([px]) => px >= x);
  const [one, two] = [inside[after - 1], inside[after]];
  if (!two) return inside.at(-1) ?? null;
  if (!one) return two;
  return [x, one[1] + ((two[1] - one[1]) * (x - one[0])) / (two[0] - one[0])];
}

/** The top of an axis from 0 up: a round number with some room above the largest value. */
export function niceTop(value: number): number {
  return nice(0, ROOM * value, TICKS)[1];
}
