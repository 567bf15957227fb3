/** The parts of the side view: ground, wheels, centre of mass, lengths, and handles to move them by. */
import { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, useState } from "react";
import { INK, PANEL, SECOND, SLATE, SPRUCE } from "../../drawing/colours";
import { SvgText } from "../../drawing/SvgText";
import { BY_POINTER } from "../../ui/dragging";

/** How high a slope is drawn, in pixels. */
export const slopeRise = (grade: number) => Math.min(Math.max(grade * 100, -40), 60);

/** The ground it stands on; where it drives up a slope, that slope beside it. */
export function Ground({ y, width, grade }: { y: number; width: number; grade: number }) {
  const rise = slopeRise(grade);
  return (
    <g stroke={SLATE} fill="none">
      <path d={`M 8 ${y} H ${width - 82}`} strokeWidth={1.5} />
      <path d={`M ${width - 82} ${y} L ${width - 22} ${y - rise}`} strokeWidth={1.5} />
      {rise !== 0 && (
        <path d={`M ${width - 82} ${y} H ${width - 22}`} strokeWidth={0.8} strokeDasharray="3 3" />
      )}
      <SvgText x={width - 40} y={y + 17} size={12.5} mono anchor="end">
        {`${Number((grade * 100).toPrecision(3))} %`}
      </SvgText>
    </g>
  );
}

interface AxleProps {
  x: number;
  y: number;
  radius: number;
  name: string;
  driven: boolean;
  onToggle?: () => void;
}

/** A wheel from the side: a filled hub is driven, an open one rolls along. */
export function AxleWheel({ x, y, radius, name, driven, onToggle }: AxleProps) {
  const choose = onToggle && {
    role: "button",
    tabIndex: 0,
    "aria-pressed": driven,
    "aria-label": `${name}, ${driven ? "driven" : "not driven"}`,
    onClick: onToggle,
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key !== "Enter" && event.key !== " ") return;
      event.preventDefault();
      onToggle();
    },
    style: { cursor: "pointer" },
  };
  return (
    <g {...choose}>
      <circle cx={x} cy={y} r={radius} fill={PANEL} stroke={SLATE} strokeWidth={driven ? 3 : 1.5} />
      <circle cx={x} cy={y} r={6} fill={driven ? INK : PANEL} stroke={INK} strokeWidth={1.5} />
    </g>
  );
}

const FINE = 1;
const COARSE = 10;

/** Something that can be moved: dragged, or by arrow keys (with Shift in larger steps). Told in pixels. */
export function Handle({
  x,
  y,
  name,
  onMove,
}: {
  x: number;
  y: number;
  name: string;
  onMove: (dx: number, dy: number) => void;
}) {
  const [held, setHeld] = useState<{ dx: number; dy: number } | null>(null);
  const bind = useDrag(({ movement: [dx, dy], last, canceled }) => {
    setHeld(last ? null : { dx, dy });
    // One move is one change, and one step of undo.
    if (last && !canceled && (dx || dy)) onMove(dx, dy);
  }, BY_POINTER);
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (!by) return;
    event.preventDefault();
    const size = event.shiftKey ? COARSE : FINE;
    onMove((by[0] ?? 0) * size, (by[1] ?? 0) * size);
  };
  return (
    <circle
      cx={x + (held?.dx ?? 0)}
      cy={y + (held?.dy ?? 0)}
      r={11}
      fill={SPRUCE}
      fillOpacity={held ? 0.3 : 0.1}
      stroke={SPRUCE}
      strokeDasharray="3 3"
      role="button"
      tabIndex={0}
      aria-label={`${name}. Move with the arrow keys`}
      style={{ cursor: "move", touchAction: "none" }}
      onKeyDown={onKeyDown}
      {...bind()}
    />
  );
}

export function CentreOfMass({ x, y }: { x: number; y: number }) {
  return (
    <g>
      <circle cx={x} cy={y} r={8} fill={PANEL} stroke={INK} strokeWidth={1.3} />
      <path
        d={`M ${x} ${y} V ${y - 8} A 8 8 0 0 1 ${x + 8} ${y} Z M ${x} ${y} V ${y + 8} A 8 8 0 0 1 ${x - 8} ${y} Z`}
        fill={INK}
      />
    </g>
  );
}

export function Length({ x1, x2, y, text }: { x1: number; x2: number; y: number; text: string }) {
  return (
    <g>
      <path
        d={`M ${x1} ${y - 5} v 10 M ${x2} ${y - 5} v 10 M ${x1} ${y} H ${x2}`}
        stroke={SECOND}
        strokeWidth={1}
      />
      <SvgText x={(x1 + x2) / 2} y={y - 3} mono size={12.5} rim={PANEL}>
        {text}
      </SvgText>
    </g>
  );
}

export function Height({
  x,
  y1,
  y2,
  text,
  left = false,
}: {
  x: number;
  y1: number;
  y2: number;
  text: string;
  left?: boolean;
}) {
  return (
    <g>
      <path
        d={`M ${x - 5} ${y1} h 10 M ${x - 5} ${y2} h 10 M ${x} ${y1} V ${y2}`}
        stroke={SECOND}
        strokeWidth={1}
      />
      <SvgText
        x={left ? x - 8 : x + 8}
        y={(y1 + y2) / 2 + 4}
        anchor={left ? "end" : "start"}
        mono
        size={12.5}
      >
        {text}
      </SvgText>
    </g>
  );
}
