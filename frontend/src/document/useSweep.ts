/** The selected wheel at other sizes, asked for once the figures of the design are painted. */
import { useEffect, useState } from "react";
import { api, type Sweep } from "../api/client";
import type { Stored } from "./bin/bin";
import { useParts } from "./bin/useBin";
import type { DesignDocument } from "./document";
import type { Selected } from "./selected";
import { afterPaint } from "./useAfterPaint";

/** Null while nothing with sizes is selected; the last one while the next is being asked for, or `held`. */
export function useSweep(
  document: DesignDocument | null,
  selected: Selected | null,
  held: boolean,
  workshop: string,
  of: string,
): Sweep | null {
  const bin = useParts(workshop).data;
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
        const parts = tried(bin, selected);
        const body = { document: document as unknown as Record<string, unknown>, ...selected, of, parts };
        const { data } = await api.POST("/api/sweep/", { body, signal: stop.signal });
        setSweep(data ?? null);
      } catch {
        // Asked again meanwhile, or no connection: what stands there stays.
      }
    };
    const calledOff = afterPaint(() => void ask());
    return () => {
      calledOff();
      stop.abort();
    };
  }, [document, selected, held, bin, of]);
  return sweep;
}

const SOURCES = ["motor", "engine"];

/** Parts of the bin that may be tried in the place of what is selected; a wheel of the line is tried in any size. */
function tried(bin: Stored[] | undefined, { member }: Selected): Record<string, unknown>[] {
  const kinds = member === "motor" ? SOURCES : member === "wheel" ? ["wheel"] : [];
  return (bin ?? []).map((part) => part.document).filter((part) => kinds.includes(part.kind));
}
