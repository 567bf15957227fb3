/** A grip on the rim of the selected wheel: pulled, the rim follows the hand at once, the teeth in whole numbers. */
import { type PointerEvent, useRef, useState } from "react";
import type { LineDrawing, Wheel } from "../api/client";
import { isSelected, type Selected } from "../document/selected";
import { PANEL, SPRUCE } from "./colours";
import type { Frame } from "./paths";
import { openLoop } from "./tangents";

/** Milliseconds between two tooth counts handed on: the rim must not wait for the figures. */
const PAUSE_MS = 120;

interface Props {
  line: LineDrawing;
  frames: Frame[];
  selected: Selected | null;
  /** The scale of the drawing stands still while the rim is held, or it would run away from the hand. */
  onHold: (held: boolean) => void;
  onTeeth: (wheel: Wheel, teeth: number, gesture: string) => void;
}

export function RimHandle({ line, frames, selected, onHold, onTeeth }: Props) {
  const row = line.rows.findIndex((r) => r.wheels.some((w) => isSelected(selected, w.path, w.member)));
  const wheel = line.rows[row]?.wheels.find((w) => isSelected(selected, w.path, w.member));
  const frame = frames[row];
  const [radius, setRadius] = useState<number | null>(null);
  const held = useRef<{
    x: number;
    y: number;
    each: number;
    gesture: string;
    last: number;
    teeth: number;
  } | null>(null);
  if (!wheel?.teeth || !frame) return null;
  const x = frame.x(wheel.x);
  const y = frame.y(wheel.y);

  const grab = (event: PointerEvent<SVGElement>) => {
    const svg = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    if (!svg || !wheel.teeth) return;
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    const each = (wheel.pitch_radius * frame.scale) / wheel.teeth;
    held.current = {
      x: svg.left + x,
      y: svg.top + y,
      each,
      gesture: `rim ${event.timeStamp}`,
      last: 0,
      teeth: wheel.teeth,
    };
    setRadius(wheel.pitch_radius * frame.scale);
    onHold(true);
  };
  const pull = (event: PointerEvent<SVGElement>) => {
    const hold = held.current;
    if (!hold) return;
    const pulled = Math.max(
      wheel.least * hold.each,
      Math.hypot(event.clientX - hold.x, event.clientY - hold.y),
    );
    hold.teeth = Math.round(pulled / hold.each);
    setRadius(pulled);
    if (event.timeStamp - hold.last < PAUSE_MS) return;
    hold.last = event.timeStamp;
    onTeeth(wheel, hold.teeth, hold.gesture);
  };
  const leave = () => {
    const hold = held.current;
    if (!hold) return;
    held.current = null;
    setRadius(null);
    onTeeth(wheel, hold.teeth, hold.gesture);
    onHold(false);
  };
  const reach =
    (radius ?? wheel.pitch_radius * frame.scale) +
    (wheel.outer_radius - wheel.pitch_radius) * frame.scale +
    2;
  const [hx, hy] = [x - reach * Math.SQRT1_2, y + reach * Math.SQRT1_2];
  return (
    <>
      {radius !== null && <Pulled line={line} row={row} frame={frame} wheel={wheel} radius={radius} />}
      <rect
        x={hx - 5}
        y={hy - 5}
        width={10}
        height={10}
        transform={`rotate(45 ${hx} ${hy})`}
        fill={PANEL}
        stroke={SPRUCE}
        strokeWidth={1.8}
        style={{ cursor: "nwse-resize", touchAction: "none" }}
        onPointerDown={grab}
        onPointerMove={pull}
        onPointerUp={leave}
        onPointerCancel={leave}
        aria-hidden="true"
        data-rim
      />
    </>
  );
}

interface PulledProps {
  line: LineDrawing;
  row: number;
  frame: Frame;
  wheel: Wheel;
  radius: number;
}

/** The rim under the hand, and the run of its loop with it. */
function Pulled({ line, row, frame, wheel, radius }: PulledProps) {
  const own = line.rows[row];
  const circle = { x: frame.x(wheel.x), y: frame.y(wheel.y), r: radius };
  const partner = own?.wheels.find((w) => w.path === wheel.path && w.member !== wheel.member);
  const looped = own?.loops.some((loop) => loop.path === wheel.path);
  const other = partner && {
    x: frame.x(partner.x),
    y: frame.y(partner.y),
    r: partner.pitch_radius * frame.scale,
  };
  return (
    <g fill="none" stroke={SPRUCE} strokeWidth={1.5} strokeDasharray="4 3" pointerEvents="none" data-dragged>
      <circle cx={circle.x} cy={circle.y} r={circle.r} />
      {looped && other && <path d={openLoop(circle, other)} />}
    </g>
  );
}
