/** The design evaluated while it changes: one request at a time, always ending with the newest, never out of order. */
import { useEffect, useRef, useState } from "react";
import { api, type Fault, type Live, type Refusal } from "../api/client";
import type { DesignDocument } from "./document";
import type { Selected } from "./selected";

export interface LiveState {
  live: Live | null;
  /** The document that these figures are of. */
  of: DesignDocument | null;
  /** What is wrong with the document; the figures are then those of the last readable one. */
  faults: Fault[];
  trouble: string;
}

/** What of the design is looked at, see the core's `Wish`. */
export interface Wish {
  selected: Selected | null;
  picked?: number;
  longest?: number;
  told?: number;
}

interface Asked {
  document: DesignDocument;
  mark: DesignDocument | null;
  wish: Wish;
}

export function useLive(document: DesignDocument, mark: DesignDocument | null, wish: Wish): LiveState {
  const [state, setState] = useState<LiveState>({ live: null, of: null, faults: [], trouble: "" });
  const next = useRef<Asked | null>(null);
  const busy = useRef(false);

  useEffect(() => {
    next.current = { document, mark, wish };
    if (busy.current) return;
    busy.current = true;
    void (async () => {
      while (next.current) {
        const asked: Asked = next.current;
        next.current = null;
        const result = await ask(asked);
        setState((old) => (result.live ? result : { ...result, live: old.live, of: old.of }));
      }
      busy.current = false;
    })();
  }, [document, mark, wish]);

  return state;
}

async function ask({ document, mark, wish }: Asked): Promise<LiveState> {
  try {
    const { data, error, response } = await api.POST("/api/live/", {
      body: {
        document: document as unknown as Record<string, unknown>,
        mark: mark as unknown as Record<string, unknown> | null,
        ...wish,
      },
    });
    if (data) return { live: data, of: document, faults: [], trouble: "" };
    const refusal = error as Refusal | undefined;
    if (refusal?.faults) return { live: null, of: null, faults: refusal.faults, trouble: "" };
    return {
      live: null,
      of: null,
      faults: [],
      trouble: refusal?.detail ?? `The server answered with ${response.status}.`,
    };
  } catch {
    return {
      live: null,
      of: null,
      faults: [],
      trouble: "No connection to the server: the figures are not up to date.",
    };
  }
}
