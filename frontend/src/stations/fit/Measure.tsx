import { type PointerEvent, useState } from "react";
import type { PlanDrawing } from "../../api/client";
import type { Spot } from "../../document/mounting";
import { PANEL, SPRUCE } from "../../drawing/colours";
import type { Frame } from "../../drawing/paths";
import { SvgText } from "../../drawing/SvgText";
import { useUnits } from "../../ui/fields/units";
import { lengthText } from "./lengths";
import { CATCH } from "./usePlanFrame";

/** Two clicks and the distance between them; near a shaft its middle is meant. */
export function Measure({ plan, frame }: { plan: PlanDrawing; frame: Frame }) {
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
