import type { KeyboardEvent } from "react";
import type { Flow, LineDrawing, View, Wheel } from "../api/client";
import type { Selected } from "../design/useLive";
import { digits, show, useUnits } from "../fields/units";
import { MEMBER_WORDS } from "../words/measures";
import {
  BoxShape,
  COPPER,
  INK,
  LINE,
  LoopShape,
  MarkShapes,
  PANEL,
  SECOND,
  SLATE,
  SPRUCE,
  WheelShape,
} from "./Circles";
import { type Frame, frameFor, spread, turningArrow } from "./paths";
import { useWidth } from "./useWidth";

const HEIGHT = 318;
const FIGURES = 74;
const LABELS = 44;
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

export function isSelected(selected: Selected | null, path: string, member: string): boolean {
  return selected?.path === path && selected.member === member;
}

/** The power path to scale, from the motor to the wheel on the ground; wheels are chosen and changed on it. */
export function LineFigure({ line, mark, flow, selected, onSelect, onStep, onKey }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(760);
  const room = { width, height: HEIGHT, left: 14, right: 14, top: LABELS + 12, bottom: FIGURES + 10 };
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
          name="Motor and supply"
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
            name={`Gearbox, ${digits(box.ratio)} to 1`}
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
        {flow && <ShaftFigures line={line} flow={flow} frame={frame} width={width} ground={ground} />}
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
      aria-valuenow={wheel.teeth}
      aria-valuetext={`${wheel.teeth} teeth`}
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

/** Tooth counts in one row over the drawing, in the order of power, each led to its wheel. */
function WheelLabels({
  line,
  frame,
  width,
  selected,
}: {
  line: LineDrawing;
  frame: Frame;
  width: number;
  selected: Selected | null;
}) {
  const aim = line.wheels.map((wheel) => {
    const lean = wheel.member === "driver" ? 0.75 : wheel.member === "driven" ? -0.75 : 0;
    const r = wheel.pitch_radius * frame.scale;
    return { x: frame.x(wheel.x) + r * Math.sin(lean), y: frame.y(wheel.y) - r * Math.cos(lean) };
  });
  const order = aim.map((_, i) => i);
  const places = spread(
    order.map((i) => (aim[i] as { x: number }).x),
    62,
    34,
    width - 34,
  );
  return (
    <g data-labels>
      {line.wheels.map((wheel, i) => {
        const chosen = isSelected(selected, wheel.path, wheel.member);
        const colour = chosen ? SPRUCE : INK;
        const to = aim[i] as { x: number; y: number };
        return (
          <g key={`${wheel.path} ${wheel.member}`} pointerEvents="none">
            <path
              d={`M ${places[i]} 39 L ${to.x.toFixed(1)} ${to.y.toFixed(1)}`}
              stroke={chosen ? SPRUCE : SECOND}
              strokeWidth={chosen ? 1.4 : 0.8}
            />
            <circle cx={to.x} cy={to.y} r={1.8} fill={chosen ? SPRUCE : SECOND} />
            <text
              x={places[i]}
              y={21}
              textAnchor="middle"
              fontFamily="var(--chakra-fonts-mono)"
              fontSize={18}
              fontWeight={700}
              fill={colour}
            >
              {wheel.teeth}
            </text>
            <text x={places[i]} y={35} textAnchor="middle" fontSize={12} fill={chosen ? SPRUCE : SECOND}>
              {wheel.member}
            </text>
          </g>
        );
      })}
    </g>
  );
}

function ShaftFigures({
  line,
  flow,
  frame,
  width,
  ground,
}: {
  line: LineDrawing;
  flow: Flow;
  frame: Frame;
  width: number;
  ground: number;
}) {
  const units = useUnits();
  const places = spread(
    line.shafts.map((shaft) => frame.x(shaft.x)),
    116,
    60,
    width - 60,
  );
  const top = Math.max(ground + 12, HEIGHT - FIGURES);
  const text = (dimension: string, si: number) => {
    const shown = show(units, dimension, si);
    return `${shown.number} ${shown.unit}`;
  };
  return (
    <g>
      {line.shafts.map((shaft, i) => {
        const own = flow.shafts[i];
        const stage = flow.stages[i];
        if (!own) return null;
        const x = places[i] as number;
        const name =
          shaft.role === "source" ? "Motor" : shaft.role === "wheel" ? "Wheel" : `Shaft ${shaft.index}`;
        const middle = (x + (places[i + 1] ?? x)) / 2;
        return (
          <g
            key={shaft.index}
            fontSize={13}
            fill={INK}
            fontFamily="var(--chakra-fonts-mono)"
            data-shaft={shaft.index}
          >
            <path
              d={`M ${frame.x(shaft.x)} ${frame.y(shaft.y) + 8} L ${x} ${top + 1}`}
              stroke={LINE}
              strokeWidth={1}
            />
            <text
              x={x}
              y={top + 13}
              textAnchor="middle"
              fontFamily="var(--chakra-fonts-body)"
              fontWeight={600}
            >
              {name}
            </text>
            <text x={x} y={top + 29} textAnchor="middle">
              {text("angular speed", own.speed)}
            </text>
            <text x={x} y={top + 44} textAnchor="middle">
              {text("torque", own.torque)}
            </text>
            <text x={x} y={top + 59} textAnchor="middle">
              {text("power", own.power)}
            </text>
            {stage && (
              <text
                x={middle}
                y={top + 59}
                textAnchor="middle"
                fill={SECOND}
                fontSize={12}
                fontFamily="var(--chakra-fonts-body)"
              >
                −{text("power", stage.loss)}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
