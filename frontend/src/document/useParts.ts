/** The parts list of the design as it stands; the last answer while the next is on its way. */
import { replaceEqualDeep, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, type PartsAnswer } from "../api/client";
import { clockNow } from "../ui/when";
import type { DesignDocument } from "./document";
import { pulseOf } from "./useBuild";

const QUIET_MS = 900;

/**
 * @param mark the design to compare with.
 * @param shown whether somebody looks at it: then it is asked for at once, else when the design has been quiet.
 */
export function useParts(
  vehicle: string,
  document: DesignDocument,
  mark: DesignDocument | null,
  shown: boolean,
): PartsAnswer | null {
  const [parts, setParts] = useState<PartsAnswer | null>(null);
  // What others say of lines changes the list too.
  const pulse = useQuery(pulseOf(vehicle, shown)).data?.pulse;
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when the pulse has changed
  useEffect(() => {
    const stop = new AbortController();
    const wait = window.setTimeout(
      async () => {
        try {
          const { data } = await api.POST("/api/vehicles/{vehicle}/parts-list/", {
            params: { path: { vehicle }, query: { now: clockNow() } },
            body: { document: asJson(document), mark: mark && asJson(mark) },
            signal: stop.signal,
          });
          if (data) setParts((old) => replaceEqualDeep(old, data));
        } catch {
          // No connection, or asked again meanwhile: what stands there stays.
        }
      },
      shown ? 0 : QUIET_MS,
    );
    return () => {
      window.clearTimeout(wait);
      stop.abort();
    };
  }, [vehicle, document, mark, shown, pulse]);
  return parts;
}

const asJson = (document: DesignDocument) => document as unknown as Record<string, unknown>;
