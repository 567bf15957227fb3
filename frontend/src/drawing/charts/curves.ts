/** Points of lines: their place at a value, rows of a table, text for a spreadsheet. Pure. */

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

type Row = Record<string, number>;

/** All series in rows of one table, by x; a series has no entry where it has no point. */
export function rows(series: Series[]): Row[] {
  const table = new Map<number, Row>();
  for (const { key, points } of series) {
    for (const [x, y] of points) {
      const row = table.get(x) ?? { x };
      row[key] = y;
      table.set(x, row);
    }
  }
  return [...table.values()].sort((a, b) => (a.x as number) - (b.x as number));
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

/** Round numbers from 0 up to at most `max`. */
export function ticks(max: number, about: number): number[] {
  return marks([0, max], about);
}

/** Round numbers inside a span. */
export function marks([low, high]: [number, number], about: number): number[] {
  const rough = (high - low) / about;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = ([1, 2, 5, 10].find((n) => n * power >= rough * 0.999) ?? 10) * power;
  const first = Math.ceil(low / step - 1e-9);
  return Array.from({ length: Math.floor(high / step + 1e-9) - first + 1 }, (_, i) =>
    Number(((first + i) * step).toPrecision(12)),
  );
}

export function niceTop(value: number): number {
  const step = ticks(value, 4)[1] ?? value;
  return Math.ceil((value * 1.08) / step) * step;
}
