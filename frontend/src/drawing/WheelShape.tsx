/** A wheel by its form: its real teeth where it is large on the screen, its pitch circle with a dash a tooth where not. */
import { memo } from "react";
import type { Wheel } from "../api/client";
import { INK, LINE, PANEL, SPRUCE, WASH } from "./colours";
import { type Frame, toothPath } from "./paths";

/** Pixels across, and along the pitch circle from tooth to tooth, from which on teeth are drawn as they are. */
const LARGE = 120;
const LEAST_TOOTH = 4;

interface Props {
  wheel: Wheel;
  frame: Frame;
  selected: boolean;
}

export const WheelShape = memo(function WheelShape({ wheel, frame, selected }: Props) {
  const stroke = selected ? SPRUCE : INK;
  const weight = selected ? 2.5 : 1.5;
  const fill = selected ? WASH : PANEL;
  const cx = frame.x(wheel.x);
  const cy = frame.y(wheel.y);
  const pitch = wheel.pitch_radius * frame.scale;
  const outer = wheel.outer_radius * frame.scale;
  const outline = isLarge(wheel, frame) ? toothPath(wheel, frame) : null;
  const circle = (r: number, more: object) => <circle cx={cx} cy={cy} r={Math.max(1, r)} {...more} />;
  const rim = { fill: "none", stroke: LINE, strokeWidth: 0.8 };
  // Two dashes a tooth around the pitch circle: tooth and gap, as many as there are teeth.
  const dashes = wheel.teeth === null ? {} : { pathLength: wheel.teeth * 2, strokeDasharray: "1 1" };
  switch (wheel.form) {
    case "grooved":
      return (
        <g fill="none" stroke={stroke}>
          {circle(outer, { fill, fillOpacity: 0.85, strokeWidth: weight })}
          {circle(pitch, { strokeWidth: 0.8, strokeDasharray: "6 3" })}
          {circle(2 * pitch - outer, { strokeWidth: 0.8 })}
        </g>
      );
    case "roller":
      return (
        <g stroke={stroke}>
          {circle(outer, { fill, fillOpacity: 0.85, strokeWidth: weight + 1 })}
          {circle(outer * 0.9, { fill: "none", strokeWidth: 0.8 })}
        </g>
      );
    case "ring":
      return (
        <g stroke={stroke}>
          {outline ? (
            <path
              d={`${outline} ${ringPath(cx, cy, outer)}`}
              {...{ fill, fillRule: "evenodd" }}
              strokeWidth={1.3}
            />
          ) : (
            <>
              {circle(outer, { fill: "none", strokeWidth: weight })}
              {circle(pitch, { fill: "none", strokeWidth: Math.max(2, (outer - pitch) * 0.8), ...dashes })}
            </>
          )}
        </g>
      );
    case "bevel":
      return (
        <g stroke={stroke}>
          {circle(outer, { fill, fillOpacity: 0.85, strokeWidth: weight })}
          {circle(pitch * 0.93, { fill: "none", strokeWidth: outer * 0.1, opacity: 0.6, ...dashes })}
          {circle(pitch * 0.6, { fill: "none", strokeWidth: 0.8 })}
        </g>
      );
    default:
      if (outline)
        return (
          <g>
            <path
              d={outline}
              fill={fill}
              fillOpacity={0.85}
              stroke={stroke}
              strokeWidth={selected ? 2 : 1.2}
            />
            {circle(pitch, rim)}
          </g>
        );
      if (wheel.form === "pulley")
        return (
          <g stroke={stroke}>
            {circle(outer, { fill, fillOpacity: 0.85, strokeWidth: weight })}
            {circle(outer * 0.82, { fill: "none", strokeWidth: outer * 0.06, opacity: 0.5, ...dashes })}
          </g>
        );
      return (
        <g stroke={stroke}>
          {circle(2 * pitch - outer, { fill, fillOpacity: 0.85, strokeWidth: weight })}
          {circle(pitch, { fill: "none", strokeWidth: Math.max(2, 2 * (outer - pitch)), ...dashes })}
          {circle(pitch, rim)}
        </g>
      );
  }
});

function isLarge(wheel: Wheel, frame: Frame): boolean {
  const across = 2 * wheel.outer_radius * frame.scale;
  return wheel.tooth !== null && across > LARGE && (Math.PI * across) / (wheel.teeth ?? 1) > LEAST_TOOTH;
}

function ringPath(cx: number, cy: number, r: number): string {
  return `M ${cx - r} ${cy} a ${r} ${r} 0 1 0 ${2 * r} 0 a ${r} ${r} 0 1 0 ${-2 * r} 0 Z`;
}
