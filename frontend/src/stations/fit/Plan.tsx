/** The plan of the plate, to scale: shafts are chosen, dragged and walked on it, and lengths measured. */
import { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, useState } from "react";
import type { OnPlate, PlanDrawing, PlanShaft } from "../../api/client";
import type { Spot } from "../../document/mounting";
import { PlateHoles } from "../../drawing/PlateHoles";
import { Ground, LoopShape } from "../../drawing/Shapes";
import { useWidth } from "../../drawing/useWidth";
import { WheelShape } from "../../drawing/WheelShape";
import { BY_POINTER } from "../../ui/dragging";
import { Measure } from "./Measure";
import { Feet, FrameLines, HeldLoops, Marks, RoadWheel, SlackRun, Slot, Tensioners } from "./PlanShapes";
import { type Held, ShaftGrip } from "./ShaftGrip";
import { heightFor, usePlanFrame } from "./usePlanFrame";

interface Props {
  fit: OnPlate;
  selected: string | null;
  zoom: number;
  measuring: boolean;
  readOnly: boolean;
  chosenClash: number | null;
  onSelect: (shaft: PlanShaft) => void;
  onMove: (shaft: string, to: Spot, gesture: string) => void;
  onKey: (event: KeyboardEvent) => void;
}

export function Plan(props: Props) {
  const { fit, selected, zoom, measuring, readOnly, chosenClash, onSelect, onMove, onKey } = props;
  const [ref, width] = useWidth<HTMLDivElement>(760);
  const { plan } = fit;
  const [pan, setPan] = useState<Spot>({ x: 0, y: 0 });
  const [held, setHeld] = useState<Held | null>(null);
  const height = heightFor(plan, width);
  const frame = usePlanFrame(plan, { width, height }, zoom, pan, held !== null);
  const shown = held ? follow(plan, held) : plan;
  const pulled = useDrag(({ event, movement: [dx, dy], first, memo, cancel }) => {
    // A shaft under the hand is dragged by itself.
    if (first && (measuring || event.target !== event.currentTarget)) return cancel();
    const from: Spot = memo ?? pan;
    setPan({ x: from.x + dx, y: from.y + dy });
    return from;
  }, BY_POINTER);
  return (
    <div ref={ref} style={{ position: "relative" }}>
      <svg
        width={width}
        height={height}
        role="group"
        aria-label="Plan of the plate, to scale"
        onKeyDown={onKey}
        style={{ display: "block", cursor: measuring ? "crosshair" : "default", touchAction: "none" }}
        data-plan
        {...pulled()}
      >
        <g pointerEvents="none">
          {plan.plate && <PlateHoles plate={plan.plate} frame={frame} />}
          {plan.ground !== null && <Ground y={frame.y(plan.ground)} width={width} />}
          <RoadWheel plan={shown} frame={frame} />
          <FrameLines plan={plan} frame={frame} />
          {plan.shafts.map((shaft) => shaft.slot && <Slot key={shaft.path} shaft={shaft} frame={frame} />)}
        </g>
        <g aria-hidden="true" pointerEvents="none">
          {[...shown.wheels]
            .sort((a, b) => b.outer_radius - a.outer_radius)
            .map((wheel) => (
              <WheelShape
                key={`${wheel.path} ${wheel.member}`}
                wheel={wheel}
                frame={frame}
                selected={shown.shafts[wheel.shaft]?.path === selected}
              />
            ))}
          {held ? (
            <HeldLoops plan={shown} frame={frame} />
          ) : (
            plan.loops.map((loop) => (
              <g key={loop.path}>
                <LoopShape loop={loop} frame={frame} />
                <Feet loop={loop} frame={frame} />
                <SlackRun loop={loop} frame={frame} />
              </g>
            ))
          )}
          <Tensioners plan={plan} frame={frame} />
        </g>
        {shown.shafts.map((shaft) => (
          <ShaftGrip
            key={shaft.path}
            {...{ shaft, plan, frame, readOnly, measuring, onSelect, onMove }}
            chosen={shaft.path === selected}
            onHold={setHeld}
          />
        ))}
        <g pointerEvents="none">{!held && <Marks plan={plan} frame={frame} chosen={chosenClash} />}</g>
        {measuring && <Measure plan={shown} frame={frame} />}
      </svg>
    </div>
  );
}

/** The plan with a shaft, and what is on it, where the hand has it. */
function follow(plan: PlanDrawing, held: Held): PlanDrawing {
  const number = plan.shafts.findIndex((shaft) => shaft.path === held.shaft);
  return {
    ...plan,
    shafts: plan.shafts.map((shaft, i) => (i === number ? { ...shaft, ...held.at } : shaft)),
    wheels: plan.wheels.map((wheel) => (wheel.shaft === number ? { ...wheel, ...held.at } : wheel)),
  };
}
