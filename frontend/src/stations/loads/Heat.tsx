import { Box } from "@chakra-ui/react";
import { memo } from "react";
import type { LoadDay } from "../../api/client";
import { Chart } from "../../drawing/charts/Chart";
import type { Series } from "../../drawing/charts/curves";
import { show, type Units, useUnits } from "../../ui/fields/units";

const HEIGHT = 170;
const LOW = 120;
/** Room behind the last moment, for the words of the axis. */
const BEYOND = 1.03;
const plain = (value: number) => String(Number(value.toPrecision(3)));
const COPPER = "var(--chakra-colors-copper)";
const SLATE = "var(--chakra-colors-slate)";
const MINUTE = 60;

type Heat = LoadDay["heat"][number];

/** Winding and case over the day, and what follows from them. */
export const HeatCharts = memo(function HeatCharts({ heat }: { heat: Heat[] }) {
  const units = useUnits();
  if (heat.length === 0)
    return (
      <Box color="ink.second" fontSize="sm">
        How warm a motor gets is told once its mass and continuous current are known, or its thermal figures.
      </Box>
    );
  return heat.map((one) => <HeatChart key={one.branch} heat={one} units={units} />);
});

function HeatChart({ heat, units }: { heat: Heat; units: Units }) {
  const entry = units.entry("temperature")[units.system];
  const shown = (kelvin: number) => (kelvin - entry.offset) / entry.factor;
  const points = (curve: number[][]): [number, number][] =>
    curve.map(([seconds = 0, kelvin = 0]) => [seconds / MINUTE, shown(kelvin)]);
  const series: Series[] = [
    { key: "winding", name: "winding", colour: COPPER, points: points(heat.winding), labelAt: 0.6 },
    {
      key: "air",
      name: "in moving air",
      colour: COPPER,
      points: points(heat.air),
      thin: true,
      labelAt: 0.85,
    },
    ...(heat.nodes > 1
      ? [{ key: "case", name: "case", colour: SLATE, points: points(heat.case), thin: true, labelAt: 0.3 }]
      : []),
  ];
  const share = `${Math.round(100 * heat.doubt)} %`;
  const last = series[0]?.points.at(-1)?.[0] ?? 1;
  const top = Math.max(shown(heat.limit), ...heat.band.map(([, , high = 0]) => shown(high))) * 1.1;
  const text = (kelvin: number) => {
    const { number, unit } = show(units, "temperature", kelvin);
    return `${number} ${unit}`;
  };
  return (
    <Box data-heat={heat.branch}>
      <Box fontWeight="600" _firstLetter={{ textTransform: "uppercase" }}>
        {`${heat.title}: winding at most ${text(heat.hottest)}, ${minutes(heat.at)} into the day; it stands ${text(heat.limit)}`}
      </Box>
      <Chart
        height={HEIGHT}
        x={{ unit: "min", max: last * BEYOND }}
        y={{ max: top }}
        series={series}
        between={heat.band.map(([seconds = 0, low = 0, high = 0]) => [
          seconds / MINUTE,
          shown(low),
          shown(high),
        ])}
        notches={[{ axis: "y", value: shown(heat.limit), text: `limit ${text(heat.limit)}` }]}
        format={plain}
      />
      <Box as="ul" fontSize="sm" pl="4" listStyleType="square">
        <li>{`In moving air at most ${text(heat.moving_air)}.`}</li>
        <li>
          {heat.shove_until_limit === null
            ? "Held against a wall its winding never gets to its limit."
            : `Held against a wall its winding is at its limit after ${minutes(heat.shove_until_limit)}.`}
        </li>
        <li data-rest>{restWords(heat.rest_needed)}</li>
        <li>
          {`The band is what it would be if heat flowed ${share} more easily or harder than said, and its masses held as much more or less.`}
          {heat.nodes === 1 &&
            " From mass and continuous current alone it is a guess, for minutes and not for seconds."}
        </li>
      </Box>
    </Box>
  );
}

function restWords(seconds: number | null): string {
  if (seconds === null) return "Even one heat is too hot for it: no rest between heats helps.";
  if (seconds === 0) return "No more rest between heats is needed.";
  return `${minutes(seconds)} more rest between heats is needed.`;
}

/** "45 s", "12 min". */
export const minutes = (seconds: number): string =>
  seconds < 2 * MINUTE ? `${Number(seconds.toPrecision(2))} s` : `${Math.round(seconds / MINUTE)} min`;

/** What flows over one heat, against what motor, controller and battery are rated for. */
export const CurrentCharts = memo(function CurrentCharts({ currents }: { currents: LoadDay["currents"] }) {
  const units = useUnits();
  return currents.map((entry) => <CurrentChart key={entry.title} current={entry} units={units} />);
});

function CurrentChart({ current, units }: { current: LoadDay["currents"][number]; units: Units }) {
  const points = current.points.map(([seconds = 0, amps = 0]): [number, number] => [seconds / MINUTE, amps]);
  const text = (amps: number) => Object.values(show(units, "current", amps)).join(" ");
  const most = Math.max(...points.map(([, amps]) => amps));
  return (
    <Box data-current={current.title} mt="2">
      <Box fontWeight="600" _firstLetter={{ textTransform: "uppercase" }}>
        {`${current.title}, one heat: at most ${text(most)}; root mean square ${text(current.mean)}, waits left out`}
      </Box>
      <Chart
        height={LOW}
        x={{ unit: "min", max: (points.at(-1)?.[0] ?? 1) * BEYOND }}
        y={{ max: Math.max(most, ...current.ratings.map((rating) => rating.value)) * 1.15 }}
        series={[{ key: "current", name: "", colour: COPPER, points, thin: true }]}
        notches={current.ratings.map(({ value, words }) => ({
          axis: "y",
          value,
          text: `${words} ${text(value)}`,
        }))}
        format={plain}
      />
    </Box>
  );
}
