/** How the plan is put on the screen. */
import { useMemo, useRef } from "react";
import type { PlanDrawing } from "../../api/client";
import type { Spot } from "../../document/mounting";
import { type Frame, frameFor } from "../../drawing/paths";

/** Pixels high: as the plate asks, between these. */
const LEAST_HEIGHT = 200;
const MOST_HEIGHT = 430;
const MARGIN = 26;
/** Pixels within which something is at a shaft. */
export const CATCH = 14;

export function heightFor(plan: PlanDrawing, width: number): number {
  const wanted = ((width - 2 * MARGIN) * (plan.top - plan.bottom)) / (plan.right - plan.left) + 2 * MARGIN;
  return Math.round(Math.min(MOST_HEIGHT, Math.max(LEAST_HEIGHT, wanted)));
}

/** The scale stands still while a shaft is held, or the plan would run away from the hand. */
export function usePlanFrame(
  plan: PlanDrawing,
  { width, height }: { width: number; height: number },
  zoom: number,
  pan: Spot,
  held: boolean,
): Frame {
  const still = useRef<Frame | null>(null);
  const made = useMemo(() => {
    const room = { width, height, left: MARGIN, right: MARGIN, top: MARGIN, bottom: MARGIN };
    const fitted = frameFor([plan], room);
    const [cx, cy] = [width / 2, height / 2];
    return {
      scale: fitted.scale * zoom,
      x: (m: number) => cx + (fitted.x(m) - cx) * zoom + pan.x,
      y: (m: number) => cy + (fitted.y(m) - cy) * zoom + pan.y,
    };
  }, [plan, width, height, zoom, pan]);
  if (!held || !still.current) still.current = made;
  return still.current;
}
