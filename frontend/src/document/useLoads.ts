/** How near each part is to what it stands; the last answer while the next is on its way. */
import { replaceEqualDeep } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, type Loads, type Refusal } from "../api/client";
import type { DesignDocument } from "./document";

const QUIET_MS = 900;

export interface LoadsState {
  loads: Loads | null;
  /** Why the newest design could not be worked out, such as a phase of the day that it cannot do; empty otherwise. */
  trouble: string;
}

/**
 * @param shown whether somebody looks at them: then they are asked for at once, else when the design has been quiet.
 */
export function useLoads(document: DesignDocument, shown: boolean): LoadsState {
  const [state, setState] = useState<LoadsState>({ loads: null, trouble: "" });
  useEffect(() => {
    const stop = new AbortController();
    const wait = window.setTimeout(
      async () => {
        try {
          const body = { document: document as unknown as Record<string, unknown> };
          const { data, error } = await api.POST("/api/loads/", { body, signal: stop.signal });
          const refusal = error as Refusal | undefined;
          const fault = refusal?.faults?.find((entry) => entry.path.startsWith("loads."));
          const trouble = fault ? `${fault.problem}; ${fault.remedy}.` : "";
          // What is the same as before stays the same object, so that nothing is painted anew for it.
          setState((old) => ({ loads: data ? replaceEqualDeep(old.loads, data) : old.loads, trouble }));
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
  }, [document, shown]);
  return state;
}
