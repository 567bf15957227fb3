/** What the charts of the Line show, from the core's curves: in the units on display, with the words of the job. */
import type { Live, View } from "../../api/client";
import { digits, type Units } from "../../ui/fields/units";
import { COPPER, SECOND, SLATE, SPRUCE } from "../colours";
import type { Band, Notch } from "./Chart";
import type { ChartData } from "./ChartPanel";
import { niceTop, type Point, type Series } from "./curves";

const factor = (units: Units, dimension: string) => units.entry(dimension)[units.system].factor;
const symbol = (units: Units, dimension: string) => units.entry(dimension)[units.system].symbol;

/** Two arrays as points, each from SI to what is shown. */
export function points(xs: number[], ys: number[], fx: number, fy: number): Point[] {
  return xs.map((x, i): Point => [x / fx, (ys[i] ?? 0) / fy]);
}

/** A number on an axis: no more digits than it needs. */
export const plain = (value: number) =>
  String(Number(digits(value).replace("\u202f", "").replace("−", "-")) || digits(value));

/** Targets for a measure as notches on the axis that shows it. */
function targets(live: Live, measures: string[], axis: "x" | "y", scale: number): Notch[] {
  return live.gauges
    .filter((gauge) => gauge.target !== null && measures.includes(gauge.measure))
    .flatMap((gauge) => [gauge.lower, gauge.upper])
    .filter((bound): bound is number => bound !== null)
    .map((bound) => ({ axis, value: bound / scale }));
}

const THIN = { colour: SECOND, dash: "5 4", thin: true } as const;
const isOther = (live: Live): live is Live & { mark: View } => live.mark !== null && live.mark !== undefined;

export function forceData(live: Live, units: Units): ChartData {
  const { force, run } = live.view;
  const v = factor(units, "speed");
  const f = factor(units, "force");
  const end = Math.max(live.no_load_speed, ...(live.mark?.force.speed ?? [])) * 1.04;
  const highest = Math.max(
    ...force.traction.map((t, i) => Math.max(Math.min(force.gears[0]?.drive[i] ?? 0, 2.2 * t), t)),
  );
  const several = force.gears.length > 1;
  const series: Series[] = [
    {
      key: "resistance",
      name: "resistance",
      colour: SLATE,
      points: points(force.speed, force.resistance, v, f),
      labelAt: 0.55,
    },
    {
      key: "grip",
      name: "grip",
      colour: COPPER,
      points: points(force.speed, force.traction, v, f),
      dash: "2 3",
      labelAt: 0.8,
    },
    ...force.gears.map((gear, i) => ({
      key: `drive ${i}`,
      name: several ? `gear ${i + 1}` : "drive",
      colour: SPRUCE,
      points: points(gear.speed, gear.drive, v, f),
      labelAt: 0.14 + 0.24 * i,
      // Where there is room: under a line that runs high, over one that runs low.
      labelBelow: Math.max(...gear.drive) > highest / 2,
    })),
  ];
  if (isOther(live)) {
    const gears = live.mark.force.gears;
    for (const [i, gear] of gears.entries())
      series.push({
        key: `mark ${i}`,
        name: gears.length > 1 ? `mark ${i + 1}` : "mark",
        points: points(gear.speed, gear.drive, v, f),
        ...(i === 0 ? { labelAt: 0.6, labelBelow: true } : {}),
        ...THIN,
      });
  }
  const notches: Notch[] = [
    ...(live.top_speed > 0 ? [{ axis: "x" as const, value: live.top_speed / v, text: "" }] : []),
    ...targets(live, ["pushing_force"], "y", f),
    ...targets(live, ["top_speed"], "x", v),
    ...(run?.changes ?? []).map((change) => ({
      axis: "x" as const,
      value: change.speed / v,
      text: `↑ ${change.gear + 1}`,
    })),
  ];
  const limited = Math.max(0, ...force.gears.map((gear) => gear.limited_to));
  const bands: Band[] = limited > 0 ? [{ from: 0, to: limited / v, text: "current limit" }] : [];
  return {
    title: `Force ${symbol(units, "force")}, over speed`,
    axis: "speed",
    scale: v,
    x: { words: "speed", unit: symbol(units, "speed"), max: end / v },
    y: { max: niceTop(highest / f) },
    series,
    notches,
    bands,
  };
}

/** Speed and distance over time; null where it does not start. */
export function runData(live: Live, units: Units): ChartData | null {
  const { run } = live.view;
  if (!run) return null;
  const v = factor(units, "speed");
  const d = factor(units, "distance");
  const series: Series[] = [
    {
      key: "distance",
      name: "distance",
      colour: SLATE,
      points: points(run.time, run.distance, 1, d),
      labelAt: 0.84,
      labelBelow: true,
    },
    { key: "speed", name: "speed", colour: SPRUCE, points: points(run.time, run.speed, 1, v), labelAt: 0.36 },
  ];
  if (isOther(live) && live.mark.run)
    series.push({
      key: "mark",
      name: "mark",
      points: points(live.mark.run.time, live.mark.run.speed, 1, v),
      ...THIN,
    });
  const goal = live.gauges.find((gauge) => gauge.measure === "time_to_distance" && gauge.at !== null);
  const notches: Notch[] =
    goal?.value && goal.at
      ? [
          { axis: "x", value: goal.value, text: "" },
          {
            axis: "y",
            value: goal.at / d,
            text: `${plain(goal.at / d)} ${symbol(units, "distance")} in ${digits(goal.value)} s`,
          },
        ]
      : [];
  return {
    title: `Distance ${symbol(units, "distance")}, speed ${symbol(units, "speed")}`,
    axis: "time",
    scale: 1,
    x: { words: "time", unit: "s", max: run.time.at(-1) ?? 1 },
    y: {},
    series,
    notches: [...notches, ...targets(live, ["time_to_distance"], "x", 1)],
    bands: [],
  };
}

/** Current of one motor and of the supply over time; null where there is none. */
export function currentData(live: Live, units: Units): ChartData | null {
  const { run } = live.view;
  if (!run || !live.supply) return null;
  const a = factor(units, "current");
  const series: Series[] = [
    {
      key: "motor",
      name: "one motor",
      colour: COPPER,
      points: points(run.time, run.motor_current, 1, a),
      labelAt: 0.4,
    },
    {
      key: "supply",
      name: "supply",
      colour: SPRUCE,
      points: points(run.time, run.bus_current, 1, a),
      labelAt: 0.84,
      labelBelow: true,
    },
  ];
  if (isOther(live) && live.mark.run)
    series.push({
      key: "mark",
      name: "mark",
      points: points(live.mark.run.time, live.mark.run.bus_current, 1, a),
      ...THIN,
    });
  const bounds = targets(live, ["peak_bus_current"], "y", a);
  const most = Math.max(...series.flatMap((s) => s.points.map(([, y]) => y)), ...bounds.map((b) => b.value));
  return {
    title: `Current ${symbol(units, "current")}, from rest`,
    axis: "time",
    scale: 1,
    x: { words: "time", unit: "s", max: run.time.at(-1) ?? 1 },
    y: { max: niceTop(most) },
    series,
    notches: bounds,
    bands: [],
  };
}
