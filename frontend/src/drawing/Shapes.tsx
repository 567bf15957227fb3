/** The painted parts of a line besides its wheels: loops, boxes, sources, the road wheel, the mark. */
import type { Box, LineDrawing, Loop, Row, Source } from "../api/client";
import { COPPER, INK, PANEL, SECOND, SLATE, SPRUCE, WASH } from "./colours";
import { type Frame, loopPath, outlinePath } from "./paths";
import { SvgText } from "./SvgText";

/** What is painted of a loop. */
type Painted = Pick<Loop, "pitch" | "form" | "segments">;

export function LoopShape({ loop, frame }: { loop: Painted; frame: Frame }) {
  const d = loopPath(loop, frame);
  if (loop.pitch === null)
    return (
      <g fill="none">
        <path d={d} stroke={INK} strokeWidth={4.5} />
        <path d={d} stroke={PANEL} strokeWidth={1} />
      </g>
    );
  const step = Math.max(3, loop.pitch * frame.scale);
  return (
    <g fill="none">
      <path d={d} stroke={INK} strokeWidth={4} />
      <path
        d={d}
        stroke={PANEL}
        strokeWidth={1.4}
        strokeDasharray={loop.form === "chain" ? `${step * 0.55} ${step * 0.45}` : `2 ${step - 2}`}
      />
    </g>
  );
}

/** Pixels a step of a box must have for its number to be written in it. */
const LEAST_FOR_TEXT = 26;
/** How far its axis is drawn out of a case on either side, pixels. */
const AXIS = 14;

interface BoxProps {
  box: Box;
  frame: Frame;
  selected: boolean;
  /** The gear engaged, of a box of several speeds. */
  engaged?: number;
}

export function BoxShape({ box, frame, selected, engaged = 0 }: BoxProps) {
  const width = box.length * frame.scale;
  const height = box.height * frame.scale;
  const x = frame.x(box.x);
  const y = frame.y(box.y);
  const stroke = selected ? SPRUCE : INK;
  const closed = box.parts.length === 0;
  const steps = box.steps.length || 1;
  return (
    <g stroke={stroke}>
      <g transform={`rotate(${(-box.angle * 180) / Math.PI} ${x} ${y})`}>
        <path
          d={`M ${x - width / 2 - AXIS} ${y} h ${width + 2 * AXIS}`}
          strokeWidth={0.8}
          strokeDasharray="9 3 2 3"
        />
        <rect
          x={x - width / 2}
          y={y - height / 2}
          width={width}
          height={height}
          rx={3}
          fill={selected ? WASH : PANEL}
          fillOpacity={closed ? 1 : 0.6}
          strokeWidth={selected ? 2.5 : 1.5}
        />
      </g>
      {box.parts.map((part, i) => (
        <PartShape
          // biome-ignore lint/suspicious/noArrayIndexKey: a part is its place in the box
          key={i}
          part={part}
          box={box}
          frame={frame}
          faint={box.one_at_a_time && part.step !== engaged}
        />
      ))}
      {closed && box.ratio > 0 && (
        <SvgText x={x} y={y + 4} mono size={12} rim={PANEL}>
          {`${box.ratio} : 1`}
        </SvgText>
      )}
      {width / steps >= LEAST_FOR_TEXT &&
        box.steps.map((step, i) => {
          const along = (i + 0.5) * (width / steps) - width / 2;
          const under = height / 2 + 11;
          return (
            <SvgText
              // biome-ignore lint/suspicious/noArrayIndexKey: a step is its place in the stack
              key={i}
              x={x + along * Math.cos(box.angle) + under * Math.sin(box.angle)}
              y={y - along * Math.sin(box.angle) + under * Math.cos(box.angle) + 4}
              mono
              size={12}
              rim={PANEL}
              bold={box.one_at_a_time && i === engaged}
            >
              {String(step)}
            </SvgText>
          );
        })}
    </g>
  );
}

function PartShape({
  part,
  box,
  frame,
  faint,
}: {
  part: Box["parts"][number];
  box: Box;
  frame: Frame;
  faint: boolean;
}) {
  const cx = frame.x(part.x);
  const cy = frame.y(part.y);
  const r = part.radius * frame.scale;
  if (part.form === "worm") {
    const half = (box.height * frame.scale) / 2 - 3;
    const threads = Math.max(3, Math.floor(half / 5));
    const slants = Array.from(
      { length: threads },
      (_, i) => `M ${cx - r} ${cy - half + ((2 * i + 1.5) * half) / threads} l ${2 * r} ${-half / threads}`,
    );
    return (
      <g>
        <rect x={cx - r} y={cy - half} width={2 * r} height={2 * half} fill={PANEL} strokeWidth={1.2} />
        <path d={slants.join(" ")} strokeWidth={1} />
      </g>
    );
  }
  if (part.form === "outline") return <path d={outlinePath(part, frame)} fill={PANEL} strokeWidth={1.4} />;
  const thick = part.form === "rim" || part.form === "thick wheel" ? 2.4 : 1.2;
  return (
    <g opacity={faint ? 0.35 : 1}>
      <circle
        cx={cx}
        cy={cy}
        r={Math.max(1, r)}
        fill={part.form === "solid" ? "currentColor" : "none"}
        fillOpacity={0.12}
        strokeWidth={faint ? 0.9 : thick}
      />
      {part.form !== "rim" && part.form !== "roller" && <circle cx={cx} cy={cy} r={1.8} fill={INK} />}
    </g>
  );
}

/** A motor round, an engine square with its crank; a clutch as a drum with its shoes. */
export function SourceShape({
  source,
  frame,
  selected,
}: {
  source: Source;
  frame: Frame;
  selected: boolean;
}) {
  const x = frame.x(source.x);
  const y = frame.y(source.y);
  const r = source.radius * frame.scale;
  const drum = (source.clutch_radius ?? 0) * frame.scale;
  const body = { fill: "var(--chakra-colors-copper-wash)", strokeWidth: selected ? 2.5 : 1.5 };
  return (
    <g stroke={COPPER}>
      {source.kind === "engine" ? (
        <rect x={x - r} y={y - r} width={2 * r} height={2 * r} rx={3} {...body} />
      ) : (
        <circle cx={x} cy={y} r={r} {...body} />
      )}
      {source.clutch_radius !== null && (
        <g fill="none">
          <circle cx={x} cy={y} r={drum} strokeWidth={1.5} />
          {[0, 1, 2].map((shoe) => (
            <path key={shoe} d={shoePath(x, y, drum * 0.86, (2 * Math.PI * shoe) / 3)} strokeWidth={3} />
          ))}
        </g>
      )}
      {source.count > 1 && (
        <SvgText x={x - r - 4} y={y - r + 2} mono size={13} bold fill={COPPER} anchor="end">
          {`${source.count} ×`}
        </SvgText>
      )}
    </g>
  );
}

function shoePath(x: number, y: number, r: number, at: number): string {
  const point = (angle: number) =>
    `${(x + r * Math.cos(angle)).toFixed(1)} ${(y + r * Math.sin(angle)).toFixed(1)}`;
  return `M ${point(at)} A ${r.toFixed(1)} ${r.toFixed(1)} 0 0 1 ${point(at + 1.6)}`;
}

export function RoadShape({
  road,
  frame,
  weight = 1.5,
}: {
  road: NonNullable<Row["road_wheel"]>;
  frame: Frame;
  weight?: number;
}) {
  const at = { cx: frame.x(road.x), cy: frame.y(road.y), fill: "transparent", stroke: SLATE };
  const r = road.radius * frame.scale;
  return (
    <>
      <circle {...at} r={r} strokeWidth={weight} />
      <circle {...at} r={r * 0.9} strokeWidth={0.8} />
    </>
  );
}

export function Ground({ y, width }: { y: number; width: number }) {
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

/** The marked design: dashed light pitch circles and loops. */
export function MarkShapes({ row, frame }: { row: LineDrawing["rows"][number]; frame: Frame }) {
  const road = row.road_wheel;
  return (
    <g fill="none" stroke={SECOND} strokeWidth={1} strokeDasharray="5 4" aria-hidden="true" data-mark>
      {row.wheels.map((wheel) => (
        <circle
          key={`${wheel.path} ${wheel.member}`}
          cx={frame.x(wheel.x)}
          cy={frame.y(wheel.y)}
          r={wheel.pitch_radius * frame.scale}
        />
      ))}
      {row.loops.map((loop) => (
        <path key={loop.path} d={loopPath(loop, frame)} />
      ))}
      {road && <circle cx={frame.x(road.x)} cy={frame.y(road.y)} r={road.radius * frame.scale} />}
    </g>
  );
}
