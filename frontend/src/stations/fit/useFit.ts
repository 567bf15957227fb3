/** How the design stands on its plate, asked for with each change; the last answer while the next is on its way. */
import { useEffect, useState } from "react";
import { api, type Mounted } from "../../api/client";
import type { DesignDocument } from "../../design/document";

export interface FitState {
  fit: Mounted | null;
  /** The document that the answer is about. */
  of: DesignDocument | null;
}

export function useFit(workshop: string, document: DesignDocument): FitState {
  const [state, setState] = useState<FitState>({ fit: null, of: null });
  useEffect(() => {
    const stop = new AbortController();
    const ask = async () => {
      try {
        const { data } = await api.POST("/api/workshops/{workshop}/fit/", {
          params: { path: { workshop } },
          body: { document: document as unknown as Record<string, unknown> },
          signal: stop.signal,
        });
        if (data) setState({ fit: data, of: document });
      } catch {
        // Asked again meanwhile, or no connection: what stands there stays.
      }
    };
    void ask();
    return () => stop.abort();
  }, [workshop, document]);
  return state;
}
