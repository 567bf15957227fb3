/** A line chart with axes in units, labels at the lines, notches on an axis and shaded bands; no words of the job. */
import { ticks } from "d3-array";
import { Fragment, memo } from "react";
import { INK, LINE, PANEL, SECOND } from "../colours";
import { SvgText } from "../SvgText";
import { useWidth } from "../useWidth";
import {
  bandPath,
  labelPlace,
  linePath,
  marked,
  niceTop,
  type Point,
  plotOf,
  type Series,
  TICKS,
  ticksThatFit,
} from "./curves";

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

type Plot = ReturnType<typeof plotOf>;

const COPPER = "var(--chakra-colors-copper)";
/** Below this share of the height a name under its line would lie on the axis. */
const LOW = 0.2;
/** Share of the width beyond which words beside a line stand on its left. */
const FAR = 0.6;
/** Between a line and the words at it, pixels. */
const GAP = 5;

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
  const plot = plotOf(width, height, x.max, top);
  return (
    <div ref={ref} style={{ minWidth: 0 }}>
      <svg width={width} height={height} aria-hidden="true" style={{ display: "block" }}>
        <Upright plot={plot} marks={ticks(0, top, TICKS)} format={format} />
        <Across plot={plot} marks={ticksThatFit(x.max, plot.width, format)} unit={x.unit} format={format} />
        {/* What goes beyond the axes is cut off. */}
        <svg x={plot.left} y={plot.top} width={plot.width} height={plot.height} aria-hidden="true">
          <g transform={`translate(${-plot.left} ${-plot.top})`}>
            {bands.map((band) => (
              <rect
                key={band.text}
                x={plot.x(band.from)}
                y={plot.top}
                width={Math.max(0, plot.x(band.to) - plot.x(band.from))}
                height={plot.height}
                fill={COPPER}
                fillOpacity={0.1}
              />
            ))}
            {between.length > 0 && <path d={bandPath(plot, between)} fill={COPPER} fillOpacity={0.16} />}
            {series.map((s) => (
              <path
                key={s.key}
                d={linePath(plot, s.points)}
                fill="none"
                stroke={s.colour}
                strokeWidth={s.thin ? 1.2 : 2.2}
                strokeDasharray={s.dash}
                data-series={s.key}
              />
            ))}
          </g>
        </svg>
        {bands.map((band) => (
          <Words key={band.text} at={[plot.x(band.from) + GAP, plot.top + 13]} anchor="start" fill={SECOND}>
            {band.text}
          </Words>
        ))}
        {notches.map((notch) => (
          <NotchShape key={`${notch.axis}${notch.value}${notch.text}`} notch={notch} plot={plot} />
        ))}
        {series.map((s) => (
          <Name key={s.key} of={s} plot={plot} />
        ))}
      </svg>
    </div>
  );
});

interface AxisProps {
  plot: Plot;
  marks: number[];
  format: (value: number) => string;
}

function Upright({ plot, marks, format }: AxisProps) {
  return marks.map((mark) => (
    <Fragment key={mark}>
      <path d={`M ${plot.left} ${plot.y(mark)} h ${plot.width}`} stroke={LINE} />
      <SvgText x={plot.left - 8} y={plot.y(mark) + 4} mono size={12} anchor="end" fill={SECOND}>
        {format(mark)}
      </SvgText>
    </Fragment>
  ));
}

function Across({ plot, marks, unit, format }: AxisProps & { unit: string }) {
  const texts = marked(marks, unit, format, plot.x);
  return (
    <>
      <path d={`M ${plot.left} ${plot.bottom} h ${plot.width}`} stroke={SECOND} />
      {marks.map((mark, i) => (
        <Fragment key={mark}>
          <path d={`M ${plot.x(mark)} ${plot.bottom} v 5`} stroke={SECOND} />
          <SvgText x={plot.x(mark)} y={plot.bottom + 17} mono size={12} fill={SECOND}>
            {texts[i]}
          </SvgText>
        </Fragment>
      ))}
    </>
  );
}

function NotchShape({ notch, plot }: { notch: Notch; plot: Plot }) {
  const { axis, value, text } = notch;
  const across = axis === "x";
  const at = across ? plot.x(value) : plot.y(value);
  if (text === undefined) {
    const shape = across
      ? `M ${at} ${plot.bottom - 9} l 4.5 9 h -9 Z`
      : `M ${plot.left + 9} ${at} l -9 4.5 v -9 Z`;
    return <path d={shape} fill={INK} data-notch />;
  }
  const left = across && value > FAR * plot.most;
  return (
    <>
      <path
        d={across ? `M ${at} ${plot.top} V ${plot.bottom}` : `M ${plot.left} ${at} h ${plot.width}`}
        stroke={SECOND}
        strokeDasharray="2 3"
      />
      <Words
        at={across ? [at + (left ? -GAP : GAP), plot.top + 13] : [plot.left + GAP, at - GAP]}
        anchor={left ? "end" : "start"}
        fill={INK}
      >
        {text}
      </Words>
    </>
  );
}

/** The name of a line at it. */
function Name({ of, plot }: { of: Series; plot: Plot }) {
  const place = labelPlace(of, plot.most, plot.highest);
  if (!place) return null;
  const below = of.labelBelow && place[1] > LOW * plot.highest;
  return (
    <Words
      at={[plot.x(place[0]), plot.y(place[1]) + (below ? GAP + 10 : -GAP)]}
      anchor="middle"
      fill={of.thin ? SECOND : of.colour}
    >
      {of.name}
    </Words>
  );
}

interface WordsProps {
  at: Point;
  anchor: "start" | "middle" | "end";
  fill: string;
  children: string;
}

const Words = ({ at: [x, y], ...rest }: WordsProps) => (
  <SvgText x={x} y={y} mono size={12} rim={PANEL} {...rest} />
);
