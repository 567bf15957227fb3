import { useDrag } from "@use-gesture/react";
import type { KeyboardEvent } from "react";
import type { PlanDrawing, PlanShaft } from "../../api/client";
import { arrowed, type Spot, snapped } from "../../document/mounting";
import { INK, PANEL, SPRUCE } from "../../drawing/colours";
import type { Frame } from "../../drawing/paths";
import { BY_POINTER } from "../../ui/dragging";
import { MOUNT_WORDS } from "../../words/measures";

/** Pixels a pointer has to go before it drags. */
const SLACK = 4;

/** A shaft that the hand has, and where. */
export interface Held {
  shaft: string;
  at: Spot;
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
  onHold: (held: Held | null) => void;
}

/** Where a drag began, where it is, and its name among the edits. */
interface Drag {
  home: Spot;
  at: Spot;
  gesture: string;
}

/** A shaft: a filled middle where it is fixed, an open one on holes, a bar in a slot, a ring of dashes where free. */
export function ShaftGrip({
  shaft,
  plan,
  frame,
  chosen,
  readOnly,
  measuring,
  onSelect,
  onMove,
  onHold,
}: GripProps) {
  const x = frame.x(shaft.x);
  const y = frame.y(shaft.y);
  const fixedPlace = shaft.mount === "slot" || readOnly;
  const on = (to: Spot) => (shaft.mount === "holes" || shaft.by === "guessed" ? snapped(plan.plate, to) : to);

  const dragged = useDrag(
    ({ event, movement: [dx, dy], first, last, canceled, memo, cancel }) => {
      if (first && (measuring || fixedPlace)) return cancel();
      const from: Drag = memo ?? { at: home(shaft), home: home(shaft), gesture: `shaft ${event.timeStamp}` };
      const at = on({ x: from.home.x + dx / frame.scale, y: from.home.y - dy / frame.scale });
      if (last) {
        if (!canceled) onMove(shaft.path, at, from.gesture);
        onHold(null);
      } else if (at.x !== from.at.x || at.y !== from.at.y) onHold({ shaft: shaft.path, at });
      return { ...from, at };
    },
    { ...BY_POINTER, threshold: SLACK },
  );
  const walk = (event: KeyboardEvent) => {
    const to = arrowed(plan.plate, shaft.mount, home(shaft), event.key, event.shiftKey);
    if (!to || fixedPlace) return;
    event.preventDefault();
    onMove(shaft.path, to, `walk ${shaft.path}`);
  };
  const grip = (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`${shaft.name}, ${MOUNT_WORDS[shaft.mount] ?? shaft.mount}`}
      style={{ cursor: fixedPlace ? "pointer" : "move", outlineOffset: 2 }}
      onFocus={() => onSelect(shaft)}
      {...dragged()}
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
  return (
    <>
      {shaft.body > 0 && <Body shaft={shaft} frame={frame} />}
      {shaft.eccentric && <Eccentric shape={shaft.eccentric} frame={frame} />}
      {grip}
    </>
  );
}

/** What stands around a shaft behind the plate, hidden by it, so dashed; and where its wires have most room. */
function Body({ shaft, frame }: { shaft: PlanShaft; frame: Frame }) {
  const [x, y, r] = [frame.x(shaft.x), frame.y(shaft.y), (shaft.body / 2) * frame.scale];
  const [across, up] = [Math.cos(shaft.wires ?? 0), -Math.sin(shaft.wires ?? 0)];
  return (
    <g stroke={INK} fill="none" pointerEvents="none" data-body-of={shaft.path}>
      <circle cx={x} cy={y} r={r} strokeWidth={1.1} strokeDasharray="7 4" />
      <path d={`M ${x + r * across} ${y + r * up} l ${14 * across} ${14 * up}`} strokeWidth={3} />
      <text
        x={x + (r + 18) * across}
        y={y + (r + 18) * up + 4}
        textAnchor={across > 0.3 ? "start" : across < -0.3 ? "end" : "middle"}
        fontSize={11}
        fill={INK}
        stroke="none"
      >
        wires
      </text>
    </g>
  );
}

/** Where a shaft is said to stand: one on an eccentric is turned out of there. */
function home(shaft: PlanShaft): Spot {
  return shaft.eccentric
    ? { x: shaft.eccentric.home_x, y: shaft.eccentric.home_y }
    : { x: shaft.x, y: shaft.y };
}

/** The rim of an eccentric with the mark that turns with it. */
function Eccentric({ shape, frame }: { shape: NonNullable<PlanShaft["eccentric"]>; frame: Frame }) {
  const [x, y] = [frame.x(shape.x), frame.y(shape.y)];
  return (
    <g stroke={SPRUCE} fill="none" data-eccentric>
      <circle cx={x} cy={y} r={shape.radius * frame.scale} strokeWidth={1.2} strokeDasharray="4 3" />
      <path d={`M ${x} ${y} L ${frame.x(shape.mark_x)} ${frame.y(shape.mark_y)}`} strokeWidth={1.6} />
    </g>
  );
}
