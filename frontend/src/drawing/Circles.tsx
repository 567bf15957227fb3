/** The painted parts of a line: wheels by form, loops, boxes. They know no numbers of the design beyond geometry. */
import type { LineDrawing, Wheel } from "../api/client";
import { type Frame, loopPath } from "./paths";
import { SvgText } from "./SvgText";

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
  const teeth = wheel.teeth === null ? {} : { pathLength: wheel.teeth * 2, strokeDasharray: "1 1" };
  if (wheel.form === "grooved") {
    return (
      <g fill="none" stroke={stroke}>
        <circle cx={cx} cy={cy} r={outer} fill={fill} fillOpacity={0.85} strokeWidth={weight} />
        <circle cx={cx} cy={cy} r={pitch} strokeWidth={0.8} strokeDasharray="6 3" />
        <circle cx={cx} cy={cy} r={2 * pitch - outer} strokeWidth={0.8} />
      </g>
    );
  }
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
  if (loop.pitch === null) return <path d={d} fill="none" stroke={INK} strokeWidth={3.5} />;
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
const LEAST_FOR_TEXT = 28;

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
  const left = frame.x(box.x1);
  const width = (box.x2 - box.x1) * frame.scale;
  const middle = frame.y(box.y);
  const stroke = selected ? SPRUCE : INK;
  const parts = Math.max(1, box.steps.length);
  return (
    <g stroke={stroke}>
      <rect
        x={left}
        y={middle - height / 2}
        width={width}
        height={height}
        fill={selected ? colour("spruce-wash") : PANEL}
        strokeWidth={selected ? 2.5 : 1.5}
      />
      {box.steps.map((step, i) => {
        const at = left + ((i + 0.5) * width) / parts;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a step is its place in the stack
          <g key={i}>
            {i > 0 && (
              <path
                d={`M ${left + (i * width) / parts} ${middle - height / 2} v ${height}`}
                strokeWidth={0.8}
              />
            )}
            {width / parts >= LEAST_FOR_TEXT && (
              <SvgText x={at} y={middle + height / 2 - 7} mono size={12} rim={PANEL}>
                {String(step)}
              </SvgText>
            )}
          </g>
        );
      })}
      {box.form === "worm" && (
        <path
          d={[0.25, 0.4, 0.55, 0.7].map((s) => `M ${left + s * width} ${middle + 8} l 8 -16`).join(" ")}
          strokeWidth={1.2}
        />
      )}
    </g>
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
