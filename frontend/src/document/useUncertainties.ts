/** How sure the gauges are, asked for when the design has been quiet for a while. */
import { useEffect, useState } from "react";
import { api, type Uncertainties } from "../api/client";
import type { DesignDocument } from "./document";

const QUIET_MS = 500;

export function useUncertainties(
  vehicle: string,
  document: DesignDocument,
  assumed: boolean,
): Uncertainties | null {
  const [uncertainties, setDoubts] = useState<{ of: DesignDocument; uncertainties: Uncertainties } | null>(
    null,
  );
  useEffect(() => {
    const stop = new AbortController();
    const wait = window.setTimeout(async () => {
      try {
        const body = { document: document as unknown as Record<string, unknown>, assumed, vehicle };
        const { data } = await api.POST("/api/uncertainties/", { body, signal: stop.signal });
        if (data) setDoubts({ of: document, uncertainties: data });
      } catch {
        // No connection, or asked again meanwhile: the figures stand without their bands.
      }
    }, QUIET_MS);
    return () => {
      window.clearTimeout(wait);
      stop.abort();
    };
  }, [vehicle, document, assumed]);
  // Bands of an older design would lie beside the values.
  return uncertainties?.of === document ? uncertainties.uncertainties : null;
}
