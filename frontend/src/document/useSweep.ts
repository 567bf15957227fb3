/** The selected wheel at other sizes, asked for once the figures of the design are painted. */
import { useEffect, useState } from "react";
import { api, type Sweep } from "../api/client";
import type { DesignDocument } from "./document";
import type { Selected } from "./selected";

/** Null while nothing with sizes is selected; the last one while the next is being asked for, or `held`. */
export function useSweep(
  document: DesignDocument | null,
  selected: Selected | null,
  held: boolean,
): Sweep | null {
  const [sweep, setSweep] = useState<Sweep | null>(null);
  useEffect(() => {
    if (held) return;
    if (!document || !selected) {
      setSweep(null);
      return;
    }
    const stop = new AbortController();
    const ask = async () => {
      try {
        const body = { document: document as unknown as Record<string, unknown>, ...selected };
        const { data } = await api.POST("/api/sweep/", { body, signal: stop.signal });
        setSweep(data ?? null);
      } catch {
        // Asked again meanwhile, or no connection: what stands there stays.
      }
    };
    const frame = requestAnimationFrame(() => window.setTimeout(() => void ask()));
    return () => {
      cancelAnimationFrame(frame);
      stop.abort();
    };
  }, [document, selected, held]);
  return sweep;
}
