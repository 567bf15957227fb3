/** The writing in and under the drawing: tooth counts above, what each shaft does below. */
import type { Flow, Row, Shaft } from "../api/client";
import { isSelected, type Selected } from "../document/selected";
import { show, useUnits } from "../ui/fields/units";
import { INK, LINE, SECOND, SPRUCE } from "./colours";
import { type Frame, spread } from "./paths";
import { SvgText } from "./SvgText";

/** Heights kept free for the two, in pixels. */
export const LABELS = 42;
export const FIGURES = 68;
const ONE_LINE = 22;

/** Shafts closer than this have their figures in two levels, one a little lower than the next. */
const CLOSE = 88;

/** Levels that the figures of a row need in this width. */
export function levelsFor(shafts: number, width: number): 1 | 2 {
  return (width - 110) / Math.max(1, shafts - 1) < CLOSE ? 2 : 1;
}

const LABEL_GAP = 60;
/** A diameter with its unit is wider than a tooth count. */
const DIAMETER_GAP = 78;
const FIGURE_GAP = 128;
/** Characters between the figures of two shafts. */
const BETWEEN = 2;
/** Width of a character of the figures, pixels. */
const CHARACTER = 7.8;

interface LabelProps {
  row: Row;
  frame: Frame;
  width: number;
  /** Where the row begins, in pixels from the top. */
  top: number;
  selected: Selected | null;
}

/** Tooth counts in one row over the drawing, from left to right, each led to its wheel. */
export function WheelLabels({ row, frame, width, top, selected }: LabelProps) {
  const units = useUnits();
  const labelled = row.wheels
    .map((wheel) => {
      const lean = wheel.member === "driver" ? 0.75 : wheel.member === "driven" ? -0.75 : 0;
      const r = wheel.pitch_radius * frame.scale;
      return { wheel, x: frame.x(wheel.x) + r * Math.sin(lean), y: frame.y(wheel.y) - r * Math.cos(lean) };
    })
    .sort((a, b) => a.x - b.x);
  const wanted = labelled.some(({ wheel }) => wheel.teeth === null) ? DIAMETER_GAP : LABEL_GAP;
  const gap = Math.min(wanted, (width - 68) / Math.max(1, labelled.length - 1));
  const diameterSize = gap < DIAMETER_GAP ? 11 : 13;
  const places = spread(
    labelled.map(({ x }) => x),
    gap,
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
            <path d={`M ${place} ${top + 40} L ${x} ${y}`} stroke={quiet} strokeWidth={chosen ? 1.4 : 0.8} />
            <circle cx={x} cy={y} r={2} fill={quiet} />
            <SvgText
              x={place}
              y={top + 21}
              mono
              bold
              size={wheel.teeth === null ? diameterSize : 19}
              fill={chosen ? SPRUCE : INK}
            >
              {wheel.teeth ?? `⌀${Object.values(show(units, "length", 2 * wheel.pitch_radius)).join(" ")}`}
            </SvgText>
            <SvgText x={place} y={top + 36} size={12.5} fill={quiet}>
              {wheel.member}
            </SvgText>
          </g>
        );
      })}
    </g>
  );
}

/** What a shaft is called: the source by its kind, and by its number where there are several. */
export function shaftName(shaft: Shaft, row: Row, branches: number): string {
  if (shaft.role === "wheel") return "Wheel";
  if (shaft.role === "middle") return `Shaft ${shaft.index}`;
  const source = row.sources.find((s) => s.branch === shaft.branch);
  const kind = source?.kind === "engine" ? "Engine" : "Motor";
  return branches > 1 ? `${kind} ${(shaft.branch ?? 0) + 1}` : kind;
}

interface FigureProps {
  row: Row;
  branches: number;
  flow: Flow;
  frame: Frame;
  width: number;
  levels: 1 | 2;
  /** Where the figures begin, in pixels from the top. */
  top: number;
}

/** The shafts of the first branch and the trunk. */
export const ownShafts = (row: Row) => row.shafts.filter((shaft) => (shaft.branch ?? 0) === 0);

/** Under each shaft its speed, torque and power, and between two shafts what their stage loses; a strip a branch. */
export function ShaftFigures({ row, branches, flow, frame, width, levels, top }: FigureProps) {
  const others = otherShafts(row, branches);
  const below = top + levels * FIGURES;
  return (
    <g>
      <Strip {...{ row, branches, flow, frame, width, levels, top }} shafts={ownShafts(row)} led />
      {others.map((shafts, i) => {
        const at = below + others.slice(0, i).reduce((sum, other) => sum + stripHeight(other, levels), 0);
        return shafts.length === 1 ? (
          <OneLine key={shafts[0]?.index} {...{ row, branches, flow }} shaft={shafts[0] as Shaft} top={at} />
        ) : (
          <Strip
            key={shafts[0]?.index}
            {...{ shafts, row, branches, flow, frame, width, levels }}
            top={at}
            led={false}
          />
        );
      })}
    </g>
  );
}

/** Shafts of the second branch and those after it, where they have some of their own. */
const otherShafts = (row: Row, branches: number): Shaft[][] =>
  Array.from({ length: branches - 1 }, (_, i) => row.shafts.filter((shaft) => shaft.branch === i + 1)).filter(
    (shafts) => shafts.length > 0,
  );

/** A branch of one shaft is told in one line. */
const stripHeight = (shafts: Shaft[], levels: number) => (shafts.length === 1 ? ONE_LINE : levels * FIGURES);

/** Height of all figures under a row, pixels. */
export function figuresHeight(row: Row, branches: number, levels: number): number {
  const others = otherShafts(row, branches).map((shafts) => stripHeight(shafts, levels));
  return others.reduce((sum, height) => sum + height, levels * FIGURES);
}

interface OneLineProps {
  shaft: Shaft;
  row: Row;
  branches: number;
  flow: Flow;
  top: number;
}

function OneLine({ shaft, row, branches, flow, top }: OneLineProps) {
  const units = useUnits();
  const text = (dimension: string, si: number) => Object.values(show(units, dimension, si)).join(" ");
  const state = flow.shafts.find((entry) => entry.shaft === shaft.index);
  if (!state) return null;
  const loss = lossAfter(flow, shaft);
  const figures = [
    text("angular speed", state.speed),
    text("torque", state.torque),
    text("power", state.power),
    ...(loss ? [`−${text("power", loss)}`] : []),
  ];
  return (
    <g data-shaft={shaft.index}>
      <SvgText x={14} y={top + 15} anchor="start" bold>
        {shaftName(shaft, row, branches)}
      </SvgText>
      <SvgText x={76} y={top + 15} anchor="start" mono>
        {figures.join(" · ")}
      </SvgText>
    </g>
  );
}

/** What the stage loses whose driver sits on the shaft, W. */
const lossAfter = (flow: Flow, shaft: Shaft) =>
  flow.stages.find((stage) => stage.driver_shaft === shaft.index)?.loss;

/** Room for what is written under a shaft, and for the loss behind it, pixels. */
function writtenWidth(flow: Flow, shaft: Shaft, text: (dimension: string, si: number) => string): number {
  const state = flow.shafts.find((entry) => entry.shaft === shaft.index);
  if (!state) return 0;
  const loss = text("power", lossAfter(flow, shaft) ?? 0).length + 2;
  const widest = Math.max(text("angular speed", state.speed).length, text("torque", state.torque).length);
  return CHARACTER * Math.max(text("power", state.power).length + loss, widest + BETWEEN);
}

function Strip({
  shafts,
  row,
  branches,
  flow,
  frame,
  width,
  levels,
  top: first,
  led,
}: FigureProps & { shafts: Shaft[]; led: boolean }) {
  const units = useUnits();
  const text = (dimension: string, si: number) => Object.values(show(units, dimension, si)).join(" ");
  const wide = Math.max(FIGURE_GAP, ...shafts.map((shaft) => writtenWidth(flow, shaft, text)));
  const gap = Math.min(wide, (width - 110) / Math.max(1, shafts.length - 1));
  const places = spread(
    shafts.map((shaft) => frame.x(shaft.x)),
    gap,
    54,
    width - 54,
  );
  return shafts.map((shaft, i) => {
    const state = flow.shafts.find((s) => s.shaft === shaft.index);
    const x = places[i] ?? 0;
    const top = first + (i % levels) * FIGURES;
    const loss = lossAfter(flow, shaft);
    if (!state) return null;
    return (
      <g key={shaft.index} data-shaft={shaft.index}>
        {led && (
          <path
            d={`M ${frame.x(shaft.x)} ${frame.y(shaft.y) + 8} L ${x} ${top + 4}`}
            stroke={LINE}
            strokeWidth={1}
          />
        )}
        <SvgText x={x} y={top + 17} bold>
          {shaftName(shaft, row, branches)}
        </SvgText>
        {[text("angular speed", state.speed), text("torque", state.torque), text("power", state.power)].map(
          (line, k) => (
            <SvgText key={line} x={x} y={top + 32 + 15 * k} mono>
              {line}
            </SvgText>
          ),
        )}
        {levels === 1 && loss !== undefined && loss > 0 && (
          <SvgText x={(x + (places[i + 1] ?? x + gap)) / 2} y={top + 62} size={12} fill={SECOND} mono>
            −{text("power", loss)}
          </SvgText>
        )}
      </g>
    );
  });
}
