/** How near each part is to what it stands; the last answer while the next is on its way. */
import { replaceEqualDeep } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, type Loads } from "../api/client";
import type { DesignDocument } from "./document";

const QUIET_MS = 900;

/**
 * @param mark the design to compare with.
 * @param shown whether somebody looks at them: then they are asked for at once, else when the design has been quiet.
 */
export function useLoads(
  document: DesignDocument,
  mark: DesignDocument | null,
  shown: boolean,
): Loads | null {
  const [loads, setLoads] = useState<Loads | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    const wait = window.setTimeout(
      async () => {
        try {
          const body = { document: asJson(document), mark: mark && asJson(mark) };
          const { data } = await api.POST("/api/loads/", { body, signal: stop.signal });
          // What is the same as before stays the same object, so that nothing is painted anew for it.
          if (data) setLoads((old) => replaceEqualDeep(old, data));
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
  }, [document, mark, shown]);
  return loads;
}

const asJson = (document: DesignDocument) => document as unknown as Record<string, unknown>;
