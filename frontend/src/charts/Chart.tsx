/** A line chart with axes in units, labels at the lines and notches on an axis; it knows no words of the job. */
import { CartesianGrid, Line, LineChart, ReferenceDot, ReferenceLine, Tooltip, XAxis, YAxis } from "recharts";
import { useWidth } from "../drawing/useWidth";

export interface Series {
  key: string;
  name: string;
  colour: string;
  points: [number, number][];
  dash?: string;
  thin?: boolean;
  /** Share of the chart's width at which its name stands; none where it would crowd. */
  labelAt?: number;
  labelBelow?: boolean;
}

export interface Notch {
  axis: "x" | "y";
  value: number;
  text: string;
}

interface Props {
  label: string;
  height: number;
  x: { unit: string; max: number };
  y: { unit: string; max?: number };
  series: Series[];
  notches?: Notch[];
  format: (value: number) => string;
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

const INK = "var(--chakra-colors-ink)";
const SECOND = "var(--chakra-colors-ink-second)";
const FACE = { fontFamily: "var(--chakra-fonts-mono)", fontSize: 12, fill: SECOND };

export default function Chart({ label, height, x, y, series, notches = [], format }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(380);
  const top = y.max ?? niceTop(Math.max(...series.flatMap((s) => s.points.map((p) => p[1]))));
  return (
    <figure ref={ref} aria-label={label} style={{ minWidth: 0 }}>
      <LineChart
        width={width}
        height={height}
        data={rows(series)}
        margin={{ top: 14, right: 18, bottom: 2, left: 0 }}
        accessibilityLayer={false}
      >
        <CartesianGrid vertical={false} stroke="var(--chakra-colors-line)" />
        <XAxis
          dataKey="x"
          type="number"
          domain={[0, x.max]}
          allowDataOverflow
          ticks={ticks(x.max, 6)}
          tick={FACE}
          stroke={SECOND}
          height={22}
          tickFormatter={(v: number) => (v === ticks(x.max, 6).at(-1) ? `${format(v)} ${x.unit}` : format(v))}
        />
        <YAxis
          type="number"
          domain={[0, top]}
          allowDataOverflow
          ticks={ticks(top, 4)}
          tick={FACE}
          stroke="none"
          width={42}
          tickFormatter={format}
        />
        {notches.map((n) => (
          <ReferenceLine
            key={`${n.axis}${n.value}`}
            {...{ [n.axis]: n.value }}
            stroke={SECOND}
            strokeDasharray="2 3"
            label={{
              value: n.text,
              position: n.axis === "y" ? "insideBottomLeft" : "insideTopLeft",
              fontSize: 12,
              fill: INK,
            }}
          />
        ))}
        {series.map((s) => (
          <Line
            key={s.key}
            dataKey={s.key}
            name={s.name}
            stroke={s.colour}
            strokeWidth={s.thin ? 1.2 : 2.2}
            strokeDasharray={s.dash}
            dot={false}
            activeDot={{ r: 3 }}
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
                  position: s.labelBelow ? "bottom" : "top",
                  fontSize: 12,
                  fill: s.thin ? SECOND : s.colour,
                }}
              />
            )
          );
        })}
        <Tooltip
          isAnimationActive={false}
          formatter={(value) => `${format(Number(value))} ${y.unit}`}
          labelFormatter={(v) => `${format(Number(v))} ${x.unit}`}
          contentStyle={{
            background: "var(--chakra-colors-panel)",
            borderColor: "var(--chakra-colors-line)",
            borderRadius: 3,
            fontSize: 12,
            padding: "4px 8px",
          }}
        />
      </LineChart>
    </figure>
  );
}

/** The point of a line at a share of the chart's width, or its last inside the chart. */
export function labelPlace(s: Series, width: number, top: number): [number, number] | null {
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
  const rough = max / about;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = ([1, 2, 5, 10].find((n) => n * power >= rough * 0.999) ?? 10) * power;
  return Array.from({ length: Math.floor(max / step + 1e-9) + 1 }, (_, i) =>
    Number((i * step).toPrecision(12)),
  );
}

export function niceTop(value: number): number {
  const step = ticks(value, 4)[1] ?? value;
  return Math.ceil((value * 1.08) / step) * step;
}
