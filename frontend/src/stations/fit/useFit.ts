/** How the design stands on its plate, asked for with each change; the last answer while the next is on its way. */
import { replaceEqualDeep } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, type Mounted } from "../../api/client";
import type { DesignDocument } from "../../document/document";

export interface FitState {
  fit: Mounted | null;
  /** The document that was answered, or refused, last. */
  of: DesignDocument | null;
}

/** Asks nothing without a document. */
export function useFit(workshop: string, document: DesignDocument | null): FitState {
  const [state, setState] = useState<FitState>({ fit: null, of: null });
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
        // What is the same as before stays the same object, so that nothing is painted anew for it.
        setState((old) => ({ fit: data ? replaceEqualDeep(old.fit, data) : old.fit, of: document }));
      } catch {
        // Asked again meanwhile, or no connection: what stands there stays.
        if (!stop.signal.aborted) setState((old) => ({ ...old, of: document }));
      }
    };
    void ask();
    return () => stop.abort();
  }, [workshop, document]);
  return state;
}

/** The document to evaluate: one in which only the mounting is another waits until the plan has been answered. */
export function useAfterFit(
  document: DesignDocument,
  answered: DesignDocument | null,
  waits: boolean,
): DesignDocument {
  const last = useRef(document);
  if (!waits || answered === document || !sameDrive(document, last.current)) last.current = document;
  return last.current;
}

function sameDrive(one: DesignDocument, other: DesignDocument): boolean {
  const keys = new Set([...Object.keys(one), ...Object.keys(other)]) as Set<keyof DesignDocument>;
  return [...keys].every((key) => key === "fit" || one[key] === other[key]);
}
