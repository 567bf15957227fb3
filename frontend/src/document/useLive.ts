/**
 * The design evaluated while it changes: one request at a time, always ending with the newest, never out of order; asked
 * again with growing pauses while there is no answer.
 */
import { replaceEqualDeep } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, type Fault, type Live, type Refusal } from "../api/client";
import { mayPass, pause, whenBack } from "../api/connection";
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

/**
 * @param readable a document that could be read: its figures stand where the first one asked about cannot be.
 */
export function useLive(
  document: DesignDocument,
  mark: DesignDocument | null,
  wish: Wish,
  readable: DesignDocument,
): LiveState {
  const [state, setState] = useState<LiveState>({ live: null, of: null, faults: [], trouble: "" });
  const next = useRef<Asked | null>(null);
  const newest = useRef<Asked>({ document, mark, wish });
  const fallback = useRef<DesignDocument | null>(readable);
  const busy = useRef(false);
  /** Ends the pause before the next try. */
  const pausing = useRef<(() => void) | null>(null);

  const run = useCallback(async () => {
    next.current = newest.current;
    if (busy.current) return;
    busy.current = true;
    for (let tries = 0; next.current; ) {
      const asked: Asked = next.current;
      next.current = null;
      const { retry, ...result } = await ask(asked);
      // What is the same as before stays the same object, so that nothing is painted anew for it.
      setState((old) => {
        const live = result.live && replaceEqualDeep(old.live, result.live);
        return live ? { ...result, live } : { ...result, live: old.live, of: old.of };
      });
      if (result.live) fallback.current = null;
      else if (result.faults.length > 0 && fallback.current) {
        const before = await ask({ ...asked, document: fallback.current });
        fallback.current = null;
        if (before.live) setState((old) => ({ ...old, live: before.live, of: before.of }));
      }
      if (!retry) tries = 0;
      else if (!next.current) {
        // What is typed meanwhile is asked about at once.
        const long = pause(tries++);
        await new Promise<void>((passed) => {
          window.setTimeout(passed, long);
          pausing.current = passed;
        });
        pausing.current = null;
        next.current ??= newest.current;
      }
    }
    busy.current = false;
  }, []);

  useEffect(() => {
    newest.current = { document, mark, wish };
    void run();
    pausing.current?.();
  }, [document, mark, wish, run]);
  useEffect(
    () =>
      whenBack(() => {
        void run();
        pausing.current?.();
      }),
    [run],
  );

  return state;
}

interface Result extends LiveState {
  /** Whether the same question may be answered later. */
  retry: boolean;
}

async function ask({ document, mark, wish }: Asked): Promise<Result> {
  try {
    const { data, error, response } = await api.POST("/api/live/", {
      body: {
        document: document as unknown as Record<string, unknown>,
        mark: mark as unknown as Record<string, unknown> | null,
        ...wish,
      },
    });
    if (data) return { live: data, of: document, faults: [], trouble: "", retry: false };
    const refusal = error as Refusal | undefined;
    const none = { live: null, of: null, faults: [] };
    if (refusal?.faults) return { ...none, faults: refusal.faults, trouble: "", retry: false };
    if (response.status === 401)
      return { ...none, trouble: "You are signed out: the figures are not up to date.", retry: false };
    const trouble = refusal?.detail ?? `The server answered with ${response.status}; it is asked again.`;
    return { ...none, trouble, retry: mayPass(response.status) };
  } catch {
    const trouble = "No connection to the server: the figures are not up to date; it is asked again.";
    return { live: null, of: null, faults: [], trouble, retry: true };
  }
}
