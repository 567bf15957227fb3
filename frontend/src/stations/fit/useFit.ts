/** How the design stands on its plate, asked for with each change; the last answer while the next is on its way. */
import { replaceEqualDeep } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, type Mounted } from "../../api/client";
import { Answers } from "../../document/answers";
import { useParts } from "../../document/bin/useBin";
import type { DesignDocument } from "../../document/document";

interface Placed {
  fit: Mounted | null;
  /** The document that was answered, or refused, last. */
  of: DesignDocument | null;
}

export interface FitState extends Placed {
  /** Ask about these documents while nothing else is to be done: they are what the next keys lead to. */
  ahead: (documents: DesignDocument[]) => void;
}

interface Answered {
  /** Null where it was refused, or there was no connection. */
  fit: Mounted | null;
}

/** Asks nothing without a document; what was answered before is there at once. */
export function useFit(workshop: string, document: DesignDocument | null): FitState {
  // What is at hand in the bin is part of the answer.
  const bin = useParts(workshop).data;
  // biome-ignore lint/correctness/useExhaustiveDependencies: another bin has other answers
  const answers = useMemo(() => new Answers(askFit(workshop), ({ fit }) => fit !== null), [workshop, bin]);
  const [state, setState] = useState<Placed>({ fit: null, of: null });
  const known = document && state.of !== document && answers.get(document);
  if (document && known) setState((old) => showing(old, known, document));
  useEffect(() => {
    if (!document || answers.get(document)) return;
    let stale = false;
    void answers.ask(document).then((answer) => {
      if (!stale) setState((old) => showing(old, answer, document));
    });
    return () => {
      stale = true;
    };
  }, [answers, document]);
  const ahead = useCallback((documents: DesignDocument[]) => answers.next(documents), [answers]);
  return { ...state, ahead };
}

/** What is the same as before stays the same object, so that nothing is painted anew for it. */
const showing = (old: Placed, { fit }: Answered, of: DesignDocument): Placed => ({
  fit: fit ? replaceEqualDeep(old.fit, fit) : old.fit,
  of,
});

const askFit =
  (workshop: string) =>
  async (document: DesignDocument): Promise<Answered> => {
    try {
      const { data } = await api.POST("/api/workshops/{workshop}/fit/", {
        params: { path: { workshop } },
        body: { document: document as unknown as Record<string, unknown> },
      });
      return { fit: data ?? null };
    } catch {
      return { fit: null };
    }
  };

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
