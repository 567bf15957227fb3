import { ticks } from "d3-array";
/** A line chart with axes in units, labels at the lines, notches on an axis and shaded bands; no words of the job. */
import { memo } from "react";
import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceDot,
  ReferenceLine,
  XAxis,
  YAxis,
} from "recharts";
import { useWidth } from "../useWidth";
import { BETWEEN, labelPlace, niceTop, rows, type Series, TICKS, ticksThatFit } from "./curves";

/** A line across the chart with its words; without any words a mere notch on the axis. */
export interface Notch {
  axis: "x" | "y";
  value: number;
  text?: string;
}

export interface Band {
  from: number;
  to: number;
  text: string;
}

interface Props {
  height: number;
  x: { unit: string; max: number };
  y: { max?: number };
  series: Series[];
  notches?: Notch[];
  bands?: Band[];
  /** A shaded stretch over x, from a low to a high value at each. */
  between?: [number, number, number][];
  format: (value: number) => string;
}

const INK = "var(--chakra-colors-ink)";
const SECOND = "var(--chakra-colors-ink-second)";
const FACE = { fontFamily: "var(--chakra-fonts-mono)", fontSize: 12, fill: SECOND };
/** Where the plot lies in the chart; what is laid over it is placed by the same numbers (see `.cursor` of the theme). */
const MARGIN = { top: 14, right: 18, bottom: 2, left: 0 };
const AXES = { width: 42, height: 22 };
/** Below this share of the height a name under its line would lie on the axis. */
const LOW = 0.2;

interface Place {
  cx?: number;
  cy?: number;
}

const NotchUp = ({ cx = 0, cy = 0 }: Place) => (
  <path d={`M ${cx} ${cy - 9} l 4.5 9 h -9 Z`} fill={INK} data-notch />
);
const NotchRight = ({ cx = 0, cy = 0 }: Place) => (
  <path d={`M ${cx + 9} ${cy} l -9 4.5 v -9 Z`} fill={INK} data-notch />
);

export const Chart = memo(function Chart({
  height,
  x,
  y,
  series,
  notches = [],
  bands = [],
  between = [],
  format,
}: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(250);
  const top = y.max ?? niceTop(Math.max(...series.flatMap((s) => s.points.map((p) => p[1]))));
  const across = ticksThatFit(x.max, width - AXES.width - MARGIN.right, format);
  return (
    <div ref={ref} style={{ minWidth: 0 }} aria-hidden="true">
      <ComposedChart
        width={width}
        height={height}
        data={rows(series, between)}
        margin={MARGIN}
        accessibilityLayer={false}
      >
        <CartesianGrid vertical={false} stroke="var(--chakra-colors-line)" />
        {bands.map((band) => (
          <ReferenceArea
            key={band.text}
            x1={band.from}
            x2={band.to}
            fill="var(--chakra-colors-copper)"
            fillOpacity={0.1}
            stroke="none"
            label={{ value: band.text, position: "insideTopLeft", fontSize: 11.5, fill: SECOND }}
          />
        ))}
        <XAxis
          dataKey="x"
          type="number"
          domain={[0, x.max]}
          allowDataOverflow
          ticks={across}
          tick={FACE}
          stroke={SECOND}
          height={AXES.height}
          tickFormatter={(v: number) => (v === across.at(-1) ? `${format(v)} ${x.unit}` : format(v))}
        />
        <YAxis
          type="number"
          domain={[0, top]}
          allowDataOverflow
          ticks={ticks(0, top, TICKS)}
          tick={FACE}
          stroke="none"
          width={AXES.width}
          tickFormatter={format}
        />
        {notches.map((n) =>
          n.text === undefined ? (
            <ReferenceDot
              key={`${n.axis}${n.value}`}
              x={n.axis === "x" ? n.value : 0}
              y={n.axis === "y" ? n.value : 0}
              r={0}
              shape={n.axis === "x" ? NotchUp : NotchRight}
              ifOverflow="visible"
            />
          ) : (
            <ReferenceLine
              key={`${n.axis}${n.value}${n.text}`}
              {...{ [n.axis]: n.value }}
              stroke={SECOND}
              strokeDasharray="2 3"
              label={{
                value: n.text,
                position:
                  n.axis === "y"
                    ? "insideBottomLeft"
                    : n.value > 0.6 * x.max
                      ? "insideTopRight"
                      : "insideTopLeft",
                fontSize: 12,
                fill: INK,
              }}
            />
          ),
        )}
        {between.length > 0 && (
          <Area
            dataKey={BETWEEN}
            fill="var(--chakra-colors-copper)"
            fillOpacity={0.16}
            stroke="none"
            isAnimationActive={false}
            activeDot={false}
            connectNulls
            type="linear"
          />
        )}
        {series.map((s) => (
          <Line
            key={s.key}
            dataKey={s.key}
            name={s.name}
            stroke={s.colour}
            strokeWidth={s.thin ? 1.2 : 2.2}
            strokeDasharray={s.dash}
            dot={false}
            activeDot={false}
            isAnimationActive={false}
            connectNulls
            type="linear"
          />
        ))}
        {series.map((s) => {
          const place = labelPlace(s, x.max, top);
          return (
            place && (
              <ReferenceDot
                key={s.key}
                x={place[0]}
                y={place[1]}
                r={0}
                label={{
                  value: s.name,
                  position: s.labelBelow && place[1] > LOW * top ? "bottom" : "top",
                  fontSize: 12,
                  fill: s.thin ? SECOND : s.colour,
                }}
              />
            )
          );
        })}
      </ComposedChart>
    </div>
  );
});
