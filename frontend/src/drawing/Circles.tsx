/** The painted parts of a line: wheels by form, loops, boxes. They know no numbers of the design beyond geometry. */
import type { LineDrawing, Wheel } from "../api/client";
import { type Frame, loopPath } from "./paths";

const colour = (name: string) => `var(--chakra-colors-${name})`;
export const INK = colour("ink");
export const SECOND = colour("ink-second");
export const LINE = colour("line");
export const SPRUCE = colour("spruce");
export const COPPER = colour("copper");
export const SLATE = colour("slate");
export const PANEL = colour("panel");

export function WheelShape({ wheel, frame, selected }: { wheel: Wheel; frame: Frame; selected: boolean }) {
  const cx = frame.x(wheel.x);
  const cy = frame.y(wheel.y);
  const pitch = wheel.pitch_radius * frame.scale;
  const outer = wheel.outer_radius * frame.scale;
  const stroke = selected ? SPRUCE : INK;
  const weight = selected ? 2.5 : 1.5;
  const fill = selected ? colour("spruce-wash") : PANEL;
  // Two dashes a tooth around the pitch circle: tooth and gap, as many as there are teeth.
  const teeth = { pathLength: wheel.teeth * 2, strokeDasharray: "1 1" };
  if (wheel.form === "pulley") {
    return (
      <g>
        <circle
          cx={cx}
          cy={cy}
          r={outer}
          fill={fill}
          fillOpacity={0.85}
          stroke={stroke}
          strokeWidth={weight}
        />
        <circle
          cx={cx}
          cy={cy}
          r={outer * 0.82}
          fill="none"
          stroke={stroke}
          strokeWidth={outer * 0.06}
          {...teeth}
          opacity={0.5}
        />
      </g>
    );
  }
  if (wheel.form === "ring") {
    return (
      <g>
        <circle cx={cx} cy={cy} r={outer} fill="none" stroke={stroke} strokeWidth={weight} />
        <circle
          cx={cx}
          cy={cy}
          r={pitch}
          fill="none"
          stroke={stroke}
          strokeWidth={Math.max(2, (outer - pitch) * 0.8)}
          {...teeth}
        />
      </g>
    );
  }
  const root = 2 * pitch - outer;
  return (
    <g>
      <circle
        cx={cx}
        cy={cy}
        r={Math.max(1, root)}
        fill={fill}
        fillOpacity={0.85}
        stroke={stroke}
        strokeWidth={weight}
      />
      <circle
        cx={cx}
        cy={cy}
        r={pitch}
        fill="none"
        stroke={stroke}
        strokeWidth={Math.max(2, outer - root)}
        {...teeth}
      />
      <circle cx={cx} cy={cy} r={pitch} fill="none" stroke={LINE} strokeWidth={0.7} />
    </g>
  );
}

export function LoopShape({ loop, frame }: { loop: LineDrawing["loops"][number]; frame: Frame }) {
  const d = loopPath(loop, frame);
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

export function BoxShape({
  box,
  frame,
  selected,
}: {
  box: LineDrawing["boxes"][number];
  frame: Frame;
  selected: boolean;
}) {
  const height = box.height * frame.scale;
  return (
    <rect
      x={frame.x(box.x1)}
      y={frame.y(box.y) - height / 2}
      width={(box.x2 - box.x1) * frame.scale}
      height={height}
      fill={selected ? colour("spruce-wash") : PANEL}
      stroke={selected ? SPRUCE : INK}
      strokeWidth={selected ? 2.5 : 1.5}
    />
  );
}

/** The marked design: dashed light pitch circles and loops. */
export function MarkShapes({ line, frame }: { line: LineDrawing; frame: Frame }) {
  return (
    <g fill="none" stroke={SECOND} strokeWidth={1} strokeDasharray="5 4" aria-hidden="true" data-mark>
      {line.wheels.map((wheel) => (
        <circle
          key={`${wheel.path} ${wheel.member}`}
          cx={frame.x(wheel.x)}
          cy={frame.y(wheel.y)}
          r={wheel.pitch_radius * frame.scale}
        />
      ))}
      {line.loops.map((loop) => (
        <path key={loop.path} d={loopPath(loop, frame)} />
      ))}
      <circle
        cx={frame.x(line.road_wheel.x)}
        cy={frame.y(line.road_wheel.y)}
        r={line.road_wheel.radius * frame.scale}
      />
    </g>
  );
}
