/** What the core makes of an instrument's lines so far; asked again as they come, but not more often than it answers. */
import { useEffect, useRef, useState } from "react";
import { answer, api, type Listened } from "../../../api/client";

const EVERY_MS = 350;

export function useListened(lines: string[], distance: string): Listened | null {
  const [listened, setListened] = useState<Listened | null>(null);
  const newest = useRef({ lines, distance });
  newest.current = { lines, distance };
  const timer = useRef<number | null>(null);
  useEffect(
    () => () => {
      if (timer.current !== null) window.clearTimeout(timer.current);
    },
    [],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: the lines and the distance are read when they are sent
  useEffect(() => {
    if (lines.length === 0) setListened(null);
    else if (timer.current === null)
      timer.current = window.setTimeout(async () => {
        timer.current = null;
        const sent = newest.current;
        try {
          const body = { lines: sent.lines, more: { distance: sent.distance } };
          const made = await answer(api.POST("/api/instruments/lines/", { body }));
          if (newest.current.lines.length > 0) setListened(made);
        } catch {
          // No connection: what stands there stays, and the next lines ask again.
        }
      }, EVERY_MS);
  }, [lines, distance]);
  return listened;
}
