/** Where the next arrow key would take a shaft: asked about ahead of it. */
import { useCallback, useEffect, useRef } from "react";
import type { Mounted, OnPlate } from "../../api/client";
import { useEdit } from "../../document/context";
import { moved, type Spot } from "../../document/mounting";
import { afterPaint } from "../../document/useAfterPaint";

interface Walk {
  path: string;
  from: Spot;
  to: Spot;
}

/** Takes down each step of a shaft; once it has been answered, the next one the same way and the one back are asked. */
export function useWalkAhead(mounted: Mounted, fit: OnPlate): (path: string, to: Spot) => void {
  const { ahead, present } = useEdit();
  const last = useRef<Walk | null>(null);
  const { behind } = fit;
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew with each answer
  useEffect(() => {
    const walk = last.current;
    if (!walk) return;
    const { path, from, to } = walk;
    const on = { x: 2 * to.x - from.x, y: 2 * to.y - from.y };
    return afterPaint(() => ahead([on, from].map((spot) => moved(present(), path, spot, behind))));
  }, [mounted]);
  return useCallback(
    (path, to) => {
      const shaft = fit.plan.shafts.find((shaft) => shaft.path === path);
      if (shaft) last.current = { path, from: { x: shaft.x, y: shaft.y }, to };
    },
    [fit],
  );
}
