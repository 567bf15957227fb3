import type { KeyboardEvent } from "react";
import type { Flow, LineDrawing, View, Wheel } from "../api/client";
import { isSelected, type Selected } from "../design/selected";
import { digits } from "../fields/units";
import { MEMBER_WORDS, STAGE_WORDS } from "../words/measures";
import { BoxShape, COPPER, INK, LoopShape, MarkShapes, PANEL, SLATE, WheelShape } from "./Circles";
import { FIGURES, LABELS, ShaftFigures, WheelLabels } from "./Figures";
import { type Frame, frameFor, turningArrow } from "./paths";
import { useWidth } from "./useWidth";

const HEIGHT = 300;
const MOTOR: Selected = { path: "drive.branches[0].source", member: "motor" };

interface Props {
  line: LineDrawing;
  mark: View | null;
  flow: Flow | undefined;
  selected: Selected | null;
  onSelect: (selected: Selected) => void;
  /** Change the selected wheel by this many teeth. */
  onStep: (wheel: Wheel, by: number) => void;
  onKey: (event: KeyboardEvent) => void;
}

/** The power path to scale, from the motor to the wheel on the ground; wheels are chosen and changed on it. */
export function LineFigure({ line, mark, flow, selected, onSelect, onStep, onKey }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(760);
  const room = { width, height: HEIGHT, left: 14, right: 14, top: LABELS + 14, bottom: FIGURES + 6 };
  const frame = frameFor(mark ? [line, mark.line] : [line], room);
  const ground = frame.y(line.ground);
  const ordered = [...line.wheels].sort((a, b) => b.outer_radius - a.outer_radius);
  const { motor, road_wheel: road } = line;
  return (
    <div ref={ref}>
      <svg
        width={width}
        height={HEIGHT}
        role="group"
        aria-label="Power path from the motor to the ground"
        onKeyDown={onKey}
        data-drawing
      >
        <Ground y={ground} width={width} />
        <circle
          cx={frame.x(road.x)}
          cy={frame.y(road.y)}
          r={road.radius * frame.scale}
          fill="none"
          stroke={SLATE}
          strokeWidth={1.5}
        />
        <circle
          cx={frame.x(road.x)}
          cy={frame.y(road.y)}
          r={road.radius * frame.scale * 0.9}
          fill="none"
          stroke={SLATE}
          strokeWidth={0.8}
        />
        <Choosable
          chosen={isSelected(selected, MOTOR.path, MOTOR.member)}
          name={line.source === "engine" ? "Engine and clutch" : "Motor and supply"}
          onSelect={() => onSelect(MOTOR)}
        >
          <circle
            cx={frame.x(motor.x)}
            cy={frame.y(motor.y)}
            r={motor.radius * frame.scale}
            fill="var(--chakra-colors-copper-wash)"
            stroke={COPPER}
            strokeWidth={isSelected(selected, MOTOR.path, MOTOR.member) ? 2.5 : 1.5}
          />
        </Choosable>
        {line.boxes.map((box) => (
          <Choosable
            key={box.path}
            chosen={isSelected(selected, box.path, "box")}
            name={`${STAGE_WORDS[box.form]}, ${digits(box.ratio)} to 1`}
            onSelect={() => onSelect({ path: box.path, member: "box" })}
          >
            <BoxShape box={box} frame={frame} selected={isSelected(selected, box.path, "box")} />
          </Choosable>
        ))}
        {ordered.map((wheel) => (
          <WheelControl
            key={`${wheel.path} ${wheel.member}`}
            wheel={wheel}
            frame={frame}
            chosen={isSelected(selected, wheel.path, wheel.member)}
            onSelect={() => onSelect({ path: wheel.path, member: wheel.member })}
            onStep={(by) => onStep(wheel, by)}
          />
        ))}
        <g pointerEvents="none">
          {line.loops.map((loop) => (
            <LoopShape key={loop.path} loop={loop} frame={frame} />
          ))}
          {mark && <MarkShapes line={mark.line} frame={frame} />}
          <Centres line={line} frame={frame} />
          <Senses line={line} frame={frame} />
        </g>
        <WheelLabels line={line} frame={frame} width={width} selected={selected} />
        {flow && <ShaftFigures line={line} flow={flow} frame={frame} width={width} height={HEIGHT} />}
      </svg>
    </div>
  );
}

interface ControlProps {
  wheel: Wheel;
  frame: Frame;
  chosen: boolean;
  onSelect: () => void;
  onStep: (by: number) => void;
}

function WheelControl({ wheel, frame, chosen, onSelect, onStep }: ControlProps) {
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowUp: 1, ArrowDown: -1, PageUp: 5, PageDown: -5 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onStep(by);
  };
  return (
    <g
      role="spinbutton"
      tabIndex={0}
      aria-label={`${wheel.member} ${MEMBER_WORDS[wheel.form]}`}
      aria-valuenow={wheel.teeth ?? undefined}
      aria-valuetext={wheel.teeth === null ? "without teeth" : `${wheel.teeth} teeth`}
      data-wheel={`${wheel.path} ${wheel.member}`}
      onFocus={onSelect}
      onClick={(event) => event.currentTarget.focus()}
      onKeyDown={onKeyDown}
      style={{ cursor: "pointer", outlineOffset: 3 }}
    >
      <WheelShape wheel={wheel} frame={frame} selected={chosen} />
    </g>
  );
}

function Choosable({
  chosen,
  name,
  onSelect,
  children,
}: {
  chosen: boolean;
  name: string;
  onSelect: () => void;
  children: React.ReactNode;
}) {
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={name}
      aria-pressed={chosen}
      onFocus={onSelect}
      onClick={(event) => event.currentTarget.focus()}
      onKeyDown={(event) => event.key === "Enter" && onSelect()}
      style={{ cursor: "pointer" }}
    >
      {children}
    </g>
  );
}

function Ground({ y, width }: { y: number; width: number }) {
  const strokes = Array.from(
    { length: Math.floor((width - 20) / 14) },
    (_, i) => `M ${18 + i * 14} ${y} l -7 7`,
  );
  return (
    <g stroke={SLATE} aria-hidden="true">
      <path d={`M 10 ${y} H ${width - 10}`} strokeWidth={1.5} />
      <path d={strokes.join(" ")} strokeWidth={0.7} />
    </g>
  );
}

/** A filled centre drives, an open one is driven; a shaft between two stages is both. */
function Centres({ line, frame }: { line: LineDrawing; frame: Frame }) {
  return line.shafts.map((shaft) => {
    const cx = frame.x(shaft.x);
    const cy = frame.y(shaft.y);
    return (
      <g key={shaft.index}>
        {shaft.role !== "source" && (
          <circle cx={cx} cy={cy} r={6} fill={PANEL} stroke={INK} strokeWidth={1.5} />
        )}
        {shaft.role !== "wheel" && <circle cx={cx} cy={cy} r={3.4} fill={INK} />}
      </g>
    );
  });
}

function Senses({ line, frame }: { line: LineDrawing; frame: Frame }) {
  return line.shafts.map((shaft) => {
    const own = line.wheels
      .filter((w) => w.shaft === shaft.index && !w.member.startsWith("idler"))
      .map((w) => w.outer_radius);
    const disc =
      shaft.role === "source" ? line.motor.radius : shaft.role === "wheel" ? line.road_wheel.radius : 0;
    const radius = Math.max(disc, ...own) * frame.scale + 7;
    const arrow = turningArrow(frame.x(shaft.x), frame.y(shaft.y), radius, shaft.sense);
    const stroke = shaft.role === "source" ? COPPER : SLATE;
    return (
      <g key={shaft.index} data-sense={shaft.sense}>
        <path d={arrow.arc} fill="none" stroke={stroke} strokeWidth={1.5} />
        <path d={arrow.head} fill={stroke} />
      </g>
    );
  });
}
