import type { OptionMeasure, Options } from "../../api/client";
import type { Units } from "../../ui/fields/units";
import { bestEdge, type Spot, spanAround } from "./field";

export const HEIGHT = 236;
export const MARGIN = { left: 50, right: 16, top: 12, bottom: 24 };

/** A measure along one side: where it stands among the measures, its targets, and SI to the unit shown. */
export interface Axis {
  place: number;
  measure: OptionMeasure;
  bounds: number[];
  shown: (si: number) => number;
}

function axisOf(options: Options, place: number, units: Units): Axis {
  const measure = options.measures[place] as OptionMeasure;
  const unit = units.entry(measure.dimension)[units.system];
  const shown = (si: number) => (si - unit.offset) / unit.factor;
  const bounds = [measure.lower, measure.upper].filter((b): b is number => b !== null).map(shown);
  return { place, measure, bounds, shown };
}

/** The first two targets; without those speed and push. */
export function firstAxes(options: Options): [number, number] {
  const wanted = options.measures.flatMap((m, i) => (m.wanted && m.measure !== "price" ? [i] : []));
  // A band is no direction to go in: what is to be large or small comes first.
  const targets = [...wanted].sort(
    (a, b) => Number(options.measures[a]?.better === 0) - Number(options.measures[b]?.better === 0),
  );
  const usual = ["top_speed", "pushing_force"].map((name) =>
    options.measures.findIndex((m) => m.measure === name),
  );
  const [x = 0, y = 1] = [...new Set([...targets, ...usual])];
  return [x, y];
}

function presentSpot(options: Options, x: Axis, y: Axis): { x: number; y: number } | null {
  const [px, py] = [options.present[x.place], options.present[y.place]];
  return px == null || py == null ? null : { x: x.shown(px), y: y.shown(py) };
}

function scaled(value: number, [low, high]: [number, number], from: number, to: number): number {
  return from + ((to - from) * (value - low)) / (high - low);
}

/** Both axes with what they span, the options that can be seen, the best edge, and where the present design is. */
export interface Seen {
  x: Axis;
  y: Axis;
  spanX: [number, number];
  spanY: [number, number];
  spots: Spot[];
  edge: Spot[];
  now: { x: number; y: number } | null;
  atX: (value: number) => number;
  atY: (value: number) => number;
}

export function layOut(options: Options, axes: [number, number], units: Units, width: number): Seen {
  const [x, y] = axes.map((place) => axisOf(options, place, units)) as [Axis, Axis];
  const all = options.rows.flatMap((row, index): Spot[] => {
    const [px, py] = [row.values[x.place], row.values[y.place]];
    return px == null || py == null ? [] : [{ index, x: x.shown(px), y: y.shown(py) }];
  });
  const now = presentSpot(options, x, y);
  const near = [...all.filter((s) => s.index < options.listed), ...(now ? [now] : [])];
  const span = (axis: Axis, of: (s: { x: number; y: number }) => number) =>
    spanAround([...near.map(of), ...axis.bounds], all.map(of));
  const spanX = span(x, (s) => s.x);
  const spanY = span(y, (s) => s.y);
  const spots = all.filter((s) => s.x >= spanX[0] && s.x <= spanX[1] && s.y >= spanY[0] && s.y <= spanY[1]);
  return {
    x,
    y,
    spanX,
    spanY,
    spots,
    edge: bestEdge(spots, x.measure.better, y.measure.better),
    now,
    atX: (value) => scaled(value, spanX, MARGIN.left, width - MARGIN.right),
    atY: (value) => scaled(value, spanY, HEIGHT - MARGIN.bottom, MARGIN.top),
  };
}
