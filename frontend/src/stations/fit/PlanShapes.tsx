/** The painted parts of a plan besides its wheels and shafts. */
import type { PlanDrawing, PlanShaft } from "../../api/client";
import { BRICK, INK, PANEL, SECOND, SLATE, SPRUCE, WASH } from "../../drawing/colours";
import type { Frame } from "../../drawing/paths";
import { SvgText } from "../../drawing/SvgText";
import { CATCH } from "./usePlanFrame";

/** Pixels of a free run from which on it is named. */
const LEAST_NAMED = 110;

type Loop = PlanDrawing["loops"][number];

export function RoadWheel({ plan, frame }: { plan: PlanDrawing; frame: Frame }) {
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
export function Slot({ shaft, frame }: { shaft: PlanShaft; frame: Frame }) {
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
export function Feet({ loop, frame }: { loop: Loop; frame: Frame }) {
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

/** The run that the driver does not pull, named where there is room. */
export function SlackRun({ loop, frame }: { loop: Loop; frame: Frame }) {
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
export function HeldLoops({ plan, frame }: { plan: PlanDrawing; frame: Frame }) {
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

export function FrameLines({ plan, frame }: { plan: PlanDrawing; frame: Frame }) {
  return plan.frame.map((line) => (
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
  ));
}

export function Tensioners({ plan, frame }: { plan: PlanDrawing; frame: Frame }) {
  return plan.tensioners.map((disc) => (
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
  ));
}

/** What clashes, by its number in the list. */
export function Marks({ plan, frame, chosen }: { plan: PlanDrawing; frame: Frame; chosen: number | null }) {
  return plan.marks.map((mark) => (
    <ClashMark
      key={mark.number}
      mark={mark}
      aside={onShaft(plan, frame, mark)}
      frame={frame}
      chosen={mark.number === chosen}
    />
  ));
}

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
