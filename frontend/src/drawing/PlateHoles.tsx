import { useId } from "react";
import type { PlanDrawing } from "../api/client";
import { LINE, PANEL, SECOND } from "./colours";
import type { Frame } from "./paths";

/** A plate with its grid of holes. */
export function PlateHoles({ plate, frame }: { plate: NonNullable<PlanDrawing["plate"]>; frame: Frame }) {
  const pattern = useId();
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
          id={pattern}
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
        fill={`url(#${pattern})`}
      />
    </g>
  );
}
