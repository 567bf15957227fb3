/** The writing in and under the drawing: tooth counts above, what each shaft does below. */
import type { Flow, LineDrawing } from "../api/client";
import { isSelected, type Selected } from "../design/selected";
import { show, useUnits } from "../fields/units";
import { INK, LINE, SECOND, SPRUCE } from "./Circles";
import { type Frame, spread } from "./paths";
import { SvgText } from "./SvgText";

/** Heights kept free for the two, in pixels. */
export const LABELS = 42;
export const FIGURES = 68;

const LABEL_GAP = 60;
const FIGURE_GAP = 128;

interface LabelProps {
  line: LineDrawing;
  frame: Frame;
  width: number;
  selected: Selected | null;
}

/** Tooth counts in one row over the drawing, in the order of power, each led to its wheel. */
export function WheelLabels({ line, frame, width, selected }: LabelProps) {
  const units = useUnits();
  const labelled = line.wheels.map((wheel) => {
    const lean = wheel.member === "driver" ? 0.75 : wheel.member === "driven" ? -0.75 : 0;
    const r = wheel.pitch_radius * frame.scale;
    return { wheel, x: frame.x(wheel.x) + r * Math.sin(lean), y: frame.y(wheel.y) - r * Math.cos(lean) };
  });
  const places = spread(
    labelled.map(({ x }) => x),
    LABEL_GAP,
    34,
    width - 34,
  );
  return (
    <g data-labels pointerEvents="none">
      {labelled.map(({ wheel, x, y }, i) => {
        const place = places[i] ?? x;
        const chosen = isSelected(selected, wheel.path, wheel.member);
        const quiet = chosen ? SPRUCE : SECOND;
        return (
          <g key={`${wheel.path} ${wheel.member}`}>
            <path d={`M ${place} 40 L ${x} ${y}`} stroke={quiet} strokeWidth={chosen ? 1.4 : 0.8} />
            <circle cx={x} cy={y} r={2} fill={quiet} />
            <SvgText x={place} y={21} mono bold size={19} fill={chosen ? SPRUCE : INK}>
              {wheel.teeth ?? `⌀ ${show(units, "length", 2 * wheel.pitch_radius).number}`}
            </SvgText>
            <SvgText x={place} y={36} size={12.5} fill={quiet}>
              {wheel.member}
            </SvgText>
          </g>
        );
      })}
    </g>
  );
}

const ROLES = {
  source: (_: number, source: string) => (source === "engine" ? "Engine" : "Motor"),
  middle: (n: number, _: string) => `Shaft ${n}`,
  wheel: (_n: number, _s: string) => "Wheel",
};

interface FigureProps {
  line: LineDrawing;
  flow: Flow;
  frame: Frame;
  width: number;
  height: number;
}

/** Under each shaft its speed, torque and power, and between two shafts what their stage loses. */
export function ShaftFigures({ line, flow, frame, width, height }: FigureProps) {
  const units = useUnits();
  const text = (dimension: string, si: number) => Object.values(show(units, dimension, si)).join(" ");
  const gap = Math.min(FIGURE_GAP, (width - 110) / Math.max(1, line.shafts.length - 1));
  const places = spread(
    line.shafts.map((shaft) => frame.x(shaft.x)),
    gap,
    54,
    width - 54,
  );
  const top = height - FIGURES;
  return (
    <g>
      {line.shafts.map((shaft, i) => {
        const own = flow.shafts[i];
        const stage = flow.stages[i];
        const x = places[i] ?? 0;
        const next = places[i + 1] ?? x;
        if (!own) return null;
        return (
          <g key={shaft.index} data-shaft={shaft.index}>
            <path
              d={`M ${frame.x(shaft.x)} ${frame.y(shaft.y) + 8} L ${x} ${top + 4}`}
              stroke={LINE}
              strokeWidth={1}
            />
            <SvgText x={x} y={top + 17} bold>
              {ROLES[shaft.role](shaft.index, line.source)}
            </SvgText>
            {[text("angular speed", own.speed), text("torque", own.torque), text("power", own.power)].map(
              (line_, row) => (
                <SvgText key={line_} x={x} y={top + 32 + 15 * row} mono>
                  {line_}
                </SvgText>
              ),
            )}
            {stage && stage.loss > 0 && (
              <SvgText x={(x + next) / 2} y={top + 62} size={12} fill={SECOND} mono>
                −{text("power", stage.loss)}
              </SvgText>
            )}
          </g>
        );
      })}
    </g>
  );
}
