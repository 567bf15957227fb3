import { Box } from "@chakra-ui/react";
import type { Learnt } from "../../api/client";
import { useWidth } from "../../drawing/useWidth";
import { digits, ratioText, useUnits } from "../../ui/fields/units";
import { Axes } from "./Axes";
import { area, FRAME, type Label, line, placedLabels, scales, span } from "./plot";
import { Shown } from "./Shown";

type Curve = Learnt["curves"][number];
type Point = Curve["points"][number];

interface Props {
  curve: Curve;
  onChoose: (runs: string[]) => void;
}

const HEIGHT = 250;
const SPRUCE = "var(--chakra-colors-spruce)";
const INK = "var(--chakra-colors-ink)";
const SECOND = "var(--chakra-colors-ink-second)";

/** What was measured over the reduction, on the curve that is predicted: where the best reduction lies shows. */
export function OverReduction({ curve, onChoose }: Props) {
  const units = useUnits();
  const [ref, width] = useWidth<HTMLDivElement>(460);
  const unit = units.entry(curve.dimension)[units.system];
  const shown = (si: number | null) => (si === null ? null : (si - unit.offset) / unit.factor);
  const frame = { ...FRAME, width, height: HEIGHT };
  const ys = [
    ...curve.low.map(shown),
    ...curve.high.map(shown),
    ...curve.points.flatMap((p) => [shown(p.mean - p.spread), shown(p.mean + p.spread)]),
  ].filter((value): value is number => value !== null);
  const xs = curve.reduction;
  const at = scales(frame, span(xs, 0), span(ys));
  const before = line(xs, curve.before.map(shown), at);
  const labels = placedLabels(
    curve.points.map((p) => ({ x: at.x(p.reduction), y: at.y(shown(p.mean) as number), text: p.design })),
    frame,
  );
  return (
    <Shown
      title={`${curve.words}, ${unit.symbol}, over the reduction`}
      table={tableOf(curve, shown, unit.symbol)}
    >
      <Box ref={ref} minW="0">
        <svg width={width} height={HEIGHT} role="img" aria-label={spoken(curve)} style={{ display: "block" }}>
          <Axes frame={frame} at={at} unitX=": 1" format={digits} />
          <path
            d={area(xs, curve.low.map(shown), curve.high.map(shown), at)}
            fill={SPRUCE}
            opacity={0.16}
            data-band
          />
          <path d={before} fill="none" stroke={SECOND} strokeDasharray="4 4" strokeWidth={1.3} data-before />
          <path
            d={line(xs, curve.after.map(shown), at)}
            fill="none"
            stroke={SPRUCE}
            strokeWidth={2.2}
            data-after
          />
          {curve.best !== null && (
            <path
              d={`M ${at.x(curve.best)} ${HEIGHT - FRAME.bottom - 9} l 4.5 9 h -9 Z`}
              fill={INK}
              data-best={curve.best}
            />
          )}
          {curve.points.map((point, k) => (
            <Measured
              key={point.design}
              point={point}
              label={labels[k] as Label}
              at={at}
              shown={shown}
              onChoose={onChoose}
            />
          ))}
        </svg>
      </Box>
      <Box fontSize="12.5px" color="ink.second">
        Points: measured, with the scatter of one reading; line: predicted with what was learnt; dashed: as
        designed.
        {curve.best !== null && ` Best at ${ratioText(units, curve.best)} (▲).`}
      </Box>
    </Shown>
  );
}

interface MeasuredProps {
  point: Point;
  label: Label;
  at: ReturnType<typeof scales>;
  shown: (si: number | null) => number | null;
  onChoose: (runs: string[]) => void;
}

function Measured({ point, label, at, shown, onChoose }: MeasuredProps) {
  const [x, y] = [at.x(point.reduction), at.y(shown(point.mean) as number)];
  const [low, high] = [point.mean - point.spread, point.mean + point.spread].map((v) =>
    at.y(shown(v) as number),
  );
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the log below has the same runs by keyboard
    <g onClick={() => onChoose(point.runs)} style={{ cursor: "pointer" }} data-point={point.design}>
      <path d={`M ${x} ${low} V ${high}`} stroke={INK} strokeWidth={1.3} />
      <circle
        cx={x}
        cy={y}
        r={5}
        fill={point.stale ? "var(--chakra-colors-panel)" : INK}
        stroke={INK}
        strokeDasharray={point.stale ? "2 2" : undefined}
      />
      <text x={label.x} y={label.y} fontSize={12} fill={INK}>
        {label.text}
      </text>
    </g>
  );
}

function spoken(curve: Curve): string {
  const points = curve.points.map((p) => `${p.design}: ${digits(p.mean)}, ${p.count} readings`);
  return `${curve.words} over the reduction. ${points.join("; ")}`;
}

function tableOf(curve: Curve, shown: (si: number | null) => number | null, unit: string) {
  const text = (si: number | null) => {
    const value = shown(si);
    return value === null ? "–" : digits(value);
  };
  return {
    heads: [
      "reduction",
      `measured, ${unit}`,
      "scatter",
      "readings",
      `predicted, ${unit}`,
      `as designed, ${unit}`,
    ],
    rows: [
      ...curve.points.map((p) => [
        `${digits(p.reduction)} (${p.design})`,
        text(p.mean),
        digits(p.spread),
        String(p.count),
        "",
        "",
      ]),
      ...curve.reduction.map((ratio, k) => [
        digits(ratio),
        "",
        "",
        "",
        text(curve.after[k] ?? null),
        text(curve.before[k] ?? null),
      ]),
    ],
  };
}
