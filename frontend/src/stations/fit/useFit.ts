/** How the design stands on its plate, asked for with each change; the last answer while the next is on its way. */
import { useEffect, useState } from "react";
import { api, type Mounted } from "../../api/client";
import type { DesignDocument } from "../../design/document";

/** Null without a document, and until the first answer. */
export function useFit(workshop: string, document: DesignDocument | null): Mounted | null {
  const [fit, setFit] = useState<Mounted | null>(null);
  useEffect(() => {
    if (!document) return;
    const stop = new AbortController();
    const ask = async () => {
      try {
        const { data } = await api.POST("/api/workshops/{workshop}/fit/", {
          params: { path: { workshop } },
          body: { document: document as unknown as Record<string, unknown> },
          signal: stop.signal,
        });
        if (data) setFit(data);
      } catch {
        // Asked again meanwhile, or no connection: what stands there stays.
      }
    };
    void ask();
    return () => stop.abort();
  }, [workshop, document]);
  return fit;
}
