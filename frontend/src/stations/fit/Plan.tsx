/** The plan of the plate, to scale: shafts are chosen, dragged and walked on it, and lengths measured. */
import { type KeyboardEvent, type PointerEvent, useMemo, useRef, useState } from "react";
import type { Mounted, PlanDrawing, PlanShaft } from "../../api/client";
import { BRICK, INK, LINE, PANEL, SECOND, SLATE, SPRUCE, WASH } from "../../drawing/colours";
import { type Frame, frameFor } from "../../drawing/paths";
import { Ground, LoopShape } from "../../drawing/Shapes";
import { SvgText } from "../../drawing/SvgText";
import { useWidth } from "../../drawing/useWidth";
import { WheelShape } from "../../drawing/WheelShape";
import { useUnits } from "../../fields/units";
import { arrowed, snapped } from "./edits";
import { lengthText } from "./lengths";

/** Pixels high: as the plate asks, between these. */
const LEAST_HEIGHT = 200;
const MOST_HEIGHT = 430;
const MARGIN = 26;
/** Pixels within which a click on a shaft measures from its middle. */
const CATCH = 14;
/** Pixels of a free run from which on it is named. */
const LEAST_NAMED = 110;
/** Pixels a pointer has to go before it drags. */
const SLACK = 4;

interface Spot {
  x: number;
  y: number;
}

interface Props {
  fit: Mounted;
  selected: string | null;
  zoom: number;
  measuring: boolean;
  readOnly: boolean;
  chosenClash: number | null;
  onSelect: (shaft: PlanShaft) => void;
  onMove: (shaft: string, to: Spot, gesture: string) => void;
  onKey: (event: KeyboardEvent) => void;
}

export function Plan(props: Props) {
  const { fit, selected, zoom, measuring, readOnly, chosenClash, onSelect, onMove, onKey } = props;
  const [ref, width] = useWidth<HTMLDivElement>(760);
  const { plan } = fit;
  const [pan, setPan] = useState<Spot>({ x: 0, y: 0 });
  const [held, setHeld] = useState<{ shaft: string; at: Spot } | null>(null);
  const height = heightFor(plan, width);
  const frame = usePlanFrame(plan, { width, height }, zoom, pan, held !== null);
  const shown = held ? follow(plan, held) : plan;
  const back = useRef<{ x: number; y: number; pan: Spot } | null>(null);
  const chosen = shown.shafts.find((shaft) => shaft.path === selected) ?? null;
  return (
    <div ref={ref} style={{ position: "relative" }}>
      <svg
        width={width}
        height={height}
        role="group"
        aria-label="Plan of the plate, to scale"
        onKeyDown={onKey}
        style={{ display: "block", cursor: measuring ? "crosshair" : "default", touchAction: "none" }}
        data-plan
        onPointerDown={(event) => {
          if (measuring || event.target !== event.currentTarget) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          back.current = { x: event.clientX, y: event.clientY, pan };
        }}
        onPointerMove={(event) => {
          const from = back.current;
          if (from)
            setPan({ x: from.pan.x + event.clientX - from.x, y: from.pan.y + event.clientY - from.y });
        }}
        onPointerUp={() => {
          back.current = null;
        }}
      >
        <g pointerEvents="none">
          {plan.plate && <PlateHoles plate={plan.plate} frame={frame} />}
          {plan.ground !== null && <Ground y={frame.y(plan.ground)} width={width} />}
          <RoadWheel plan={shown} frame={frame} />
          {plan.frame.map((line) => (
            <g key={`${line.name} ${line.x1} ${line.y1}`}>
              <path
                d={`M ${frame.x(line.x1)} ${frame.y(line.y1)} L ${frame.x(line.x2)} ${frame.y(line.y2)}`}
                stroke={SLATE}
                strokeWidth={4}
              />
              <SvgText
                x={frame.x((line.x1 + line.x2) / 2)}
                y={frame.y((line.y1 + line.y2) / 2) - 7}
                size={12}
                fill={SLATE}
                rim={PANEL}
              >
                {line.name}
              </SvgText>
            </g>
          ))}
          {plan.shafts.map((shaft) => shaft.slot && <Slot key={shaft.path} shaft={shaft} frame={frame} />)}
        </g>
        <g aria-hidden="true" pointerEvents="none">
          {[...shown.wheels]
            .sort((a, b) => b.outer_radius - a.outer_radius)
            .map((wheel) => (
              <WheelShape
                key={`${wheel.path} ${wheel.member}`}
                wheel={wheel}
                frame={frame}
                selected={chosen?.path === shown.shafts[wheel.shaft]?.path}
              />
            ))}
          {!held &&
            plan.loops.map((loop) => (
              <LoopShape
                key={loop.path}
                loop={{ ...loop, pitch: loop.form === "v_belt" ? null : pitchOf(plan, loop.path) }}
                frame={frame}
              />
            ))}
          {held && <HeldLoops plan={shown} frame={frame} />}
          {!held &&
            plan.loops.map((loop) => (
              <g key={loop.path}>
                <Feet loop={loop} frame={frame} />
                <SlackRun loop={loop} frame={frame} />
              </g>
            ))}
          {plan.tensioners.map((disc) => (
            <circle
              key={disc.path}
              cx={frame.x(disc.x)}
              cy={frame.y(disc.y)}
              r={disc.radius * frame.scale}
              fill={PANEL}
              stroke={INK}
              strokeWidth={1.5}
              strokeDasharray="3 2"
            />
          ))}
        </g>
        {shown.shafts.map((shaft) => (
          <ShaftGrip
            key={shaft.path}
            {...{ shaft, plan, frame, readOnly, measuring, onSelect, onMove }}
            chosen={shaft.path === selected}
            onHold={setHeld}
          />
        ))}
        {!held && (
          <g pointerEvents="none">
            {plan.marks.map((mark) => (
              <ClashMark
                key={mark.number}
                mark={mark}
                aside={onShaft(plan, frame, mark)}
                frame={frame}
                chosen={mark.number === chosenClash}
              />
            ))}
          </g>
        )}
        {measuring && <Measure plan={shown} frame={frame} />}
      </svg>
    </div>
  );
}

function heightFor(plan: PlanDrawing, width: number): number {
  const wanted = ((width - 2 * MARGIN) * (plan.top - plan.bottom)) / (plan.right - plan.left) + 2 * MARGIN;
  return Math.round(Math.min(MOST_HEIGHT, Math.max(LEAST_HEIGHT, wanted)));
}

/** The scale stands still while a shaft is held, or the plan would run away from the hand. */
function usePlanFrame(
  plan: PlanDrawing,
  { width, height }: { width: number; height: number },
  zoom: number,
  pan: Spot,
  held: boolean,
): Frame {
  const still = useRef<Frame | null>(null);
  const made = useMemo(() => {
    const room = { width, height, left: MARGIN, right: MARGIN, top: MARGIN, bottom: MARGIN };
    const fitted = frameFor([plan], room);
    const [cx, cy] = [width / 2, height / 2];
    return {
      scale: fitted.scale * zoom,
      x: (m: number) => cx + (fitted.x(m) - cx) * zoom + pan.x,
      y: (m: number) => cy + (fitted.y(m) - cy) * zoom + pan.y,
    };
  }, [plan, width, height, zoom, pan]);
  if (!held || !still.current) still.current = made;
  return still.current;
}

/** The plan with a shaft, and what is on it, where the hand has it. */
function follow(plan: PlanDrawing, held: { shaft: string; at: Spot }): PlanDrawing {
  const number = plan.shafts.findIndex((shaft) => shaft.path === held.shaft);
  return {
    ...plan,
    shafts: plan.shafts.map((shaft, i) => (i === number ? { ...shaft, ...held.at } : shaft)),
    wheels: plan.wheels.map((wheel) => (wheel.shaft === number ? { ...wheel, ...held.at } : wheel)),
  };
}

const pitchOf = (plan: PlanDrawing, path: string) => {
  const wheel = plan.wheels.find((entry) => entry.path === path);
  return wheel?.teeth ? (2 * Math.PI * wheel.pitch_radius) / wheel.teeth : null;
};

function PlateHoles({ plate, frame }: { plate: NonNullable<PlanDrawing["plate"]>; frame: Frame }) {
  const wide = (plate.across - 1) * plate.hole_pitch;
  const high = (plate.up - 1) * plate.hole_pitch;
  const r = Math.max(1, ((plate.hole || 0.25 * plate.hole_pitch) / 2) * frame.scale);
  const step = plate.hole_pitch * frame.scale;
  const left = frame.x(0);
  const top = frame.y(high);
  return (
    <g>
      <defs>
        <pattern
          id="plate-holes"
          x={left - step / 2}
          y={top - step / 2}
          width={step}
          height={step}
          patternUnits="userSpaceOnUse"
        >
          <circle cx={step / 2} cy={step / 2} r={r} fill="none" stroke={LINE} strokeWidth={1} />
        </pattern>
      </defs>
      <rect
        x={frame.x(-plate.margin)}
        y={frame.y(high + plate.margin)}
        width={(wide + 2 * plate.margin) * frame.scale}
        height={(high + 2 * plate.margin) * frame.scale}
        rx={3}
        fill={PANEL}
        stroke={SECOND}
        strokeWidth={1.2}
      />
      <rect
        x={left - step / 2}
        y={top - step / 2}
        width={wide * frame.scale + step}
        height={high * frame.scale + step}
        fill="url(#plate-holes)"
      />
    </g>
  );
}

function RoadWheel({ plan, frame }: { plan: PlanDrawing; frame: Frame }) {
  const axle = plan.shafts.find((shaft) => shaft.path === plan.axle);
  if (!axle) return null;
  return (
    <circle
      cx={frame.x(axle.x)}
      cy={frame.y(axle.y)}
      r={plan.road_radius * frame.scale}
      fill="none"
      stroke={SLATE}
      strokeWidth={1.2}
      strokeDasharray="10 5"
    />
  );
}

/** A slot with its two ends, and the way that is left to either. */
function Slot({ shaft, frame }: { shaft: PlanShaft; frame: Frame }) {
  const slot = shaft.slot as NonNullable<PlanShaft["slot"]>;
  const across = Math.max(8, (shaft.opening || shaft.diameter || 0.006) * frame.scale);
  const [x1, y1, x2, y2] = [frame.x(slot.x1), frame.y(slot.y1), frame.x(slot.x2), frame.y(slot.y2)];
  return (
    <g data-slot={shaft.path}>
      <path
        d={`M ${x1} ${y1} L ${x2} ${y2}`}
        stroke={SECOND}
        strokeWidth={across + 2}
        strokeLinecap="round"
      />
      <path d={`M ${x1} ${y1} L ${x2} ${y2}`} stroke={WASH} strokeWidth={across} strokeLinecap="round" />
      <path d={`M ${x1} ${y1} L ${x2} ${y2}`} stroke={SECOND} strokeWidth={0.8} strokeDasharray="3 3" />
    </g>
  );
}

/** Where the free runs of a loop leave and meet its wheels. */
function Feet({ loop, frame }: { loop: PlanDrawing["loops"][number]; frame: Frame }) {
  const runs = loop.segments.filter((segment) => segment.wrap === 0);
  return (
    <g fill={PANEL} stroke={INK} strokeWidth={1} data-feet={loop.path}>
      {runs.flatMap((run) => [
        <circle key={`${run.x1} ${run.y1} a`} cx={frame.x(run.x1)} cy={frame.y(run.y1)} r={2.6} />,
        <circle key={`${run.x2} ${run.y2} b`} cx={frame.x(run.x2)} cy={frame.y(run.y2)} r={2.6} />,
      ])}
    </g>
  );
}

/** The run that the driver does not pull, told by a wave beside it. */
function SlackRun({ loop, frame }: { loop: PlanDrawing["loops"][number]; frame: Frame }) {
  const run = loop.slack === null ? undefined : loop.segments[loop.slack];
  if (!run) return null;
  const [x1, y1, x2, y2] = [frame.x(run.x1), frame.y(run.y1), frame.x(run.x2), frame.y(run.y2)];
  const length = Math.hypot(x2 - x1, y2 - y1);
  if (length < LEAST_NAMED) return null;
  const turn = (Math.atan2(y2 - y1, x2 - x1) * 180) / Math.PI;
  return (
    <g
      transform={`translate(${(x1 + x2) / 2} ${(y1 + y2) / 2}) rotate(${Math.abs(turn) > 90 ? turn + 180 : turn})`}
    >
      <SvgText x={0} y={-6} size={11} fill={SECOND} rim={PANEL}>
        slack side
      </SvgText>
    </g>
  );
}

/** Belts and chains while a shaft is dragged: their wheels' middles joined. */
function HeldLoops({ plan, frame }: { plan: PlanDrawing; frame: Frame }) {
  return (
    <g stroke={SPRUCE} strokeWidth={1.5} strokeDasharray="4 3" fill="none" data-dragged>
      {plan.loops.map((loop) => {
        const [one, other] = plan.wheels.filter((wheel) => wheel.path === loop.path);
        if (!one || !other) return null;
        return (
          <path
            key={loop.path}
            d={`M ${frame.x(one.x)} ${frame.y(one.y)} L ${frame.x(other.x)} ${frame.y(other.y)}`}
          />
        );
      })}
    </g>
  );
}

interface GripProps {
  shaft: PlanShaft;
  plan: PlanDrawing;
  frame: Frame;
  chosen: boolean;
  readOnly: boolean;
  measuring: boolean;
  onSelect: (shaft: PlanShaft) => void;
  onMove: (shaft: string, to: Spot, gesture: string) => void;
  onHold: (held: { shaft: string; at: Spot } | null) => void;
}

/** A shaft: a filled middle where it is fixed, an open one on holes, a bar in a slot, a ring of dashes where free. */
function ShaftGrip({ shaft, plan, frame, chosen, readOnly, measuring, onSelect, onMove, onHold }: GripProps) {
  const drag = useRef<{ x: number; y: number; from: Spot; at: Spot; moved: boolean; gesture: string } | null>(
    null,
  );
  const x = frame.x(shaft.x);
  const y = frame.y(shaft.y);
  const fixedPlace = shaft.mount === "slot" || readOnly;
  const on = (to: Spot) => (shaft.mount === "holes" || shaft.by === "guessed" ? snapped(plan.plate, to) : to);

  const grab = (event: PointerEvent<SVGElement>) => {
    if (measuring) return;
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    const from = { x: shaft.x, y: shaft.y };
    drag.current = {
      x: event.clientX,
      y: event.clientY,
      from,
      at: from,
      moved: false,
      gesture: `shaft ${event.timeStamp}`,
    };
    onSelect(shaft);
    (event.currentTarget as SVGElement).focus();
  };
  const pull = (event: PointerEvent<SVGElement>) => {
    const hold = drag.current;
    if (!hold || fixedPlace) return;
    const [dx, dy] = [event.clientX - hold.x, event.clientY - hold.y];
    if (!hold.moved && Math.hypot(dx, dy) < SLACK) return;
    hold.moved = true;
    const to = on({ x: hold.from.x + dx / frame.scale, y: hold.from.y - dy / frame.scale });
    if (to.x === hold.at.x && to.y === hold.at.y) return;
    hold.at = to;
    onHold({ shaft: shaft.path, at: to });
  };
  const leave = () => {
    const hold = drag.current;
    drag.current = null;
    if (!hold?.moved) return;
    onMove(shaft.path, hold.at, hold.gesture);
    onHold(null);
  };
  const walk = (event: KeyboardEvent) => {
    const to = arrowed(plan.plate, shaft.mount, shaft, event.key, event.shiftKey);
    if (!to || fixedPlace) return;
    event.preventDefault();
    onMove(shaft.path, to, `walk ${shaft.path}`);
  };
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`${shaft.name}, ${MOUNT_WORDS[shaft.mount] ?? shaft.mount}`}
      style={{ cursor: fixedPlace ? "pointer" : "move", outlineOffset: 2 }}
      onFocus={() => onSelect(shaft)}
      onPointerDown={grab}
      onPointerMove={pull}
      onPointerUp={leave}
      onPointerCancel={leave}
      onKeyDown={walk}
      data-shaft={shaft.path}
    >
      <circle cx={x} cy={y} r={16} fill="transparent" />
      {chosen && <circle cx={x} cy={y} r={12} fill="none" stroke={SPRUCE} strokeWidth={2.5} />}
      <circle
        cx={x}
        cy={y}
        r={Math.max(4.5, (shaft.diameter / 2) * frame.scale)}
        fill={shaft.mount === "fixed" ? INK : PANEL}
        stroke={INK}
        strokeWidth={1.6}
        strokeDasharray={shaft.mount === "free" || shaft.by === "guessed" ? "3 2" : undefined}
      />
      {shaft.mount === "slot" && <path d={`M ${x - 7} ${y} h 14`} stroke={INK} strokeWidth={2.4} />}
    </g>
  );
}

export const MOUNT_WORDS: Record<string, string> = {
  fixed: "fixed",
  holes: "on a hole",
  slot: "in a slot",
  free: "free",
};

/** Marks on a shaft stand beside it, one after the other where there are several. */
function onShaft(plan: PlanDrawing, frame: Frame, mark: Mark): number {
  const near = (one: Mark) =>
    plan.shafts.find((s) => Math.hypot(s.x - one.x, s.y - one.y) * frame.scale < CATCH)?.path;
  const shaft = near(mark);
  if (!shaft) return 0;
  return 1 + plan.marks.filter((other) => other.number < mark.number && near(other) === shaft).length;
}

type Mark = PlanDrawing["marks"][number];

interface MarkProps {
  mark: Mark;
  /** Which one beside a shaft, from 1 on; 0 where it stands by itself. */
  aside: number;
  frame: Frame;
  chosen: boolean;
}

function ClashMark({ mark, aside, frame, chosen }: MarkProps) {
  const x = frame.x(mark.x) + (aside ? 6 + 20 * aside : 0);
  const y = frame.y(mark.y) - (aside ? 20 : 0);
  const clash = mark.level === "clash";
  const r = chosen ? 12 : 9;
  return (
    <g data-clash-mark={mark.number}>
      {clash ? (
        <path
          d={`M ${x} ${y - r} L ${x + r} ${y + r * 0.75} L ${x - r} ${y + r * 0.75} Z`}
          fill={PANEL}
          stroke={BRICK}
          strokeWidth={chosen ? 3 : 2}
        />
      ) : (
        <circle
          cx={x}
          cy={y}
          r={r - 1}
          fill={PANEL}
          stroke={SECOND}
          strokeWidth={1.5}
          strokeDasharray="3 2"
        />
      )}
      <SvgText x={x} y={y + 5} size={11} mono bold fill={clash ? BRICK : SECOND}>
        {String(mark.number + 1)}
      </SvgText>
    </g>
  );
}

/** Two clicks and the distance between them; near a shaft its middle is meant. */
function Measure({ plan, frame }: { plan: PlanDrawing; frame: Frame }) {
  const units = useUnits();
  const [points, setPoints] = useState<Spot[]>([]);
  const click = (event: PointerEvent<SVGRectElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const [px, py] = [event.clientX - box.left, event.clientY - box.top];
    const near = plan.shafts.find((s) => Math.hypot(frame.x(s.x) - px, frame.y(s.y) - py) < CATCH);
    const spot = near
      ? { x: near.x, y: near.y }
      : { x: (px - frame.x(0)) / frame.scale, y: (frame.y(0) - py) / frame.scale };
    setPoints((old) => (old.length === 1 ? [...old, spot] : [spot]));
  };
  const [one, other] = points;
  const apart = one && other && lengthText(units, Math.hypot(other.x - one.x, other.y - one.y));
  return (
    <g>
      <rect width="100%" height="100%" fill="transparent" onPointerDown={click} data-measure />
      <g pointerEvents="none" stroke={SPRUCE} strokeWidth={1.6}>
        {points.map((spot) => (
          <circle key={`${spot.x} ${spot.y}`} cx={frame.x(spot.x)} cy={frame.y(spot.y)} r={4} fill={PANEL} />
        ))}
        {one && other && apart && (
          <>
            <path d={`M ${frame.x(one.x)} ${frame.y(one.y)} L ${frame.x(other.x)} ${frame.y(other.y)}`} />
            <g stroke="none">
              <SvgText
                x={(frame.x(one.x) + frame.x(other.x)) / 2}
                y={(frame.y(one.y) + frame.y(other.y)) / 2 - 8}
                mono
                bold
                size={15}
                rim={PANEL}
              >
                {apart}
              </SvgText>
            </g>
          </>
        )}
      </g>
    </g>
  );
}
