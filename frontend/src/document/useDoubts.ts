/** How sure the gauges are, asked for when the design has been quiet for a while. */
import { useEffect, useState } from "react";
import { api, type Doubts } from "../api/client";
import type { DesignDocument } from "./document";

const QUIET_MS = 500;

export function useDoubts(document: DesignDocument, assumed: boolean): Doubts | null {
  const [doubts, setDoubts] = useState<{ of: DesignDocument; doubts: Doubts } | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    const wait = window.setTimeout(async () => {
      try {
        const body = { document: document as unknown as Record<string, unknown>, assumed };
        const { data } = await api.POST("/api/doubts/", { body, signal: stop.signal });
        if (data) setDoubts({ of: document, doubts: data });
      } catch {
        // No connection, or asked again meanwhile: the figures stand without their bands.
      }
    }, QUIET_MS);
    return () => {
      window.clearTimeout(wait);
      stop.abort();
    };
  }, [document, assumed]);
  // Bands of an older design would lie beside the values.
  return doubts?.of === document ? doubts.doubts : null;
}
