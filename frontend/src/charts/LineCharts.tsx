/** The two charts of the Line: force over speed, and the run from rest. */
import { Box } from "@chakra-ui/react";
import { memo } from "react";
import type { Live } from "../api/client";
import { COPPER, SECOND, SLATE, SPRUCE } from "../drawing/colours";
import { digits, ratioText, type Units, useUnits } from "../fields/units";
import Chart, { type Notch, niceTop, type Series } from "./Chart";

interface Props {
  live: Live;
  height: number;
}

function scaler(units: Units, dimension: string): (si: number) => number {
  const { factor } = units.entry(dimension)[units.system];
  return (si) => si / factor;
}

const pairs = (xs: number[], ys: number[], fx: (v: number) => number, fy: (v: number) => number) =>
  xs.map((x, i): [number, number] => [fx(x), fy(ys[i] as number)]);

/** A number on an axis: no more digits than it needs. */
const plain = (value: number) =>
  String(Number(digits(value).replace("\u202f", "").replace("−", "-")) || digits(value));

export default memo(function LineCharts({ live, height }: Props) {
  return (
    <Box display="grid" gridTemplateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="3">
      <ForceChart live={live} height={height} />
      <RunChart live={live} height={height} />
    </Box>
  );
});

function ForceChart({ live, height }: Props) {
  const units = useUnits();
  const speed = scaler(units, "speed");
  const force = scaler(units, "force");
  const { view, mark } = live;
  const curve = view.force;
  const end = Math.max(live.no_load_speed, ...(mark?.force.speed ?? [])) * 1.04;
  const over = (values: number[]) => pairs(curve.speed, values, speed, force);
  const series: Series[] = [
    { key: "resistance", name: "resistance", colour: SLATE, points: over(curve.resistance), labelAt: 0.25 },
    { key: "grip", name: "grip", colour: COPPER, points: over(curve.traction), dash: "2 3", labelAt: 0.8 },
    ...curve.gears.map((gear, i) => ({
      key: `drive ${i}`,
      name: curve.gears.length > 1 ? ratioText(units, gear.ratio) : `drive, ${ratioText(units, gear.ratio)}`,
      colour: SPRUCE,
      points: pairs(gear.speed, gear.drive, speed, force),
      labelAt: 0.25 + 0.2 * i,
      labelBelow: true,
    })),
  ];
  const marked = mark?.force.gears.at(-1);
  if (mark && marked && mark.ratio !== view.ratio) {
    series.push({
      key: "mark",
      name: `mark, ${ratioText(units, marked.ratio)}`,
      colour: SECOND,
      points: pairs(marked.speed, marked.drive, speed, force),
      dash: "5 4",
      thin: true,
      labelAt: 0.6,
      labelBelow: true,
    });
  }
  const notches: Notch[] = live.top_speed > 0 ? [{ axis: "x", value: speed(live.top_speed), text: "" }] : [];
  for (const gauge of live.gauges) {
    if (gauge.measure === "pushing_force" && gauge.lower !== null)
      notches.push({ axis: "y", value: force(gauge.lower), text: "target" });
  }
  const highest = Math.max(
    ...curve.traction.map((t, i) => Math.max(Math.min(curve.gears[0]?.drive[i] ?? 0, 2.2 * t), t)),
  );
  return (
    <Panel title={`Force, ${units.entry("force")[units.system].symbol}, over speed`}>
      <Chart
        label="Force over speed"
        height={height}
        x={{ unit: units.entry("speed")[units.system].symbol, max: speed(end) }}
        y={{ unit: units.entry("force")[units.system].symbol, max: niceTop(force(highest)) }}
        series={series}
        notches={notches}
        format={plain}
      />
    </Panel>
  );
}

function RunChart({ live, height }: Props) {
  const units = useUnits();
  const { run } = live.view;
  const speed = scaler(units, "speed");
  const distance = scaler(units, "distance");
  if (!run)
    return (
      <Panel title="The run from rest">
        <Box py="10" textAlign="center" color="ink.second">
          It does not start, so there is no run to show.
        </Box>
      </Panel>
    );
  const same = (v: number) => v;
  const series: Series[] = [
    {
      key: "distance",
      name: "distance",
      colour: SLATE,
      points: pairs(run.time, run.distance, same, distance),
      labelAt: 0.84,
      labelBelow: true,
    },
    {
      key: "speed",
      name: "speed",
      colour: SPRUCE,
      points: pairs(run.time, run.speed, same, speed),
      labelAt: 0.36,
    },
  ];
  const marked = live.mark?.run;
  if (marked && live.mark?.ratio !== live.view.ratio) {
    series.push({
      key: "mark",
      name: "mark",
      colour: SECOND,
      points: pairs(marked.time, marked.speed, same, speed),
      dash: "5 4",
      thin: true,
    });
  }
  const goal = live.gauges.find((g) => g.measure === "time_to_distance" && g.at !== null);
  const notches: Notch[] =
    goal?.value && goal.at
      ? [
          { axis: "x", value: goal.value, text: "" },
          {
            axis: "y",
            value: distance(goal.at),
            text: `${plain(distance(goal.at))} ${units.entry("distance")[units.system].symbol} in ${digits(goal.value)} s`,
          },
        ]
      : [];
  const title = `Distance, ${units.entry("distance")[units.system].symbol}; speed, ${units.entry("speed")[units.system].symbol}; from rest`;
  return (
    <Panel title={title}>
      <Chart
        label="The run from rest"
        height={height}
        x={{ unit: "s", max: run.time.at(-1) ?? 1 }}
        y={{ unit: "" }}
        series={series}
        notches={notches}
        format={plain}
      />
    </Panel>
  );
}

function Panel({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" pt="2" minW="0">
      <Box as="h2" fontFamily="mono" fontSize="13px" fontWeight="400" color="ink.second" px="3">
        {title}
      </Box>
      {children}
    </Box>
  );
}
