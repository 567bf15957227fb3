/**
 * The design evaluated while it changes: one request at a time, always ending with the newest, never out of order; asked
 * again with growing pauses while there is no answer. What was answered before is there at once.
 */
import { replaceEqualDeep } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Fault, Live } from "../api/client";
import { pause, whenBack } from "../api/connection";
import { Answers } from "./answers";
import { type Asked, askLive, type Wish } from "./asking";
import type { DesignDocument } from "./document";

export interface LiveState {
  live: Live | null;
  /** The document that these figures are of. */
  of: DesignDocument | null;
  /** What is wrong with the document; the figures are then those of the last readable one. */
  faults: Fault[];
  trouble: string;
}

export interface Following extends LiveState {
  /** Ask about these documents while nothing else is to be done: they are what the next keys lead to. */
  ahead: (documents: DesignDocument[]) => void;
}

/**
 * @param readable a document that could be read: its figures stand where the first one asked about cannot be.
 * @param seen figures of the document from before, to be shown until they are answered.
 */
export function useLive(
  document: DesignDocument,
  mark: DesignDocument | null,
  wish: Wish,
  readable: DesignDocument,
  seen: Live | null,
): Following {
  const [answers] = useState(() => new Answers(askLive, ({ live }) => live !== null));
  const [state, setState] = useState<LiveState>({
    live: seen,
    of: seen && document,
    faults: [],
    trouble: "",
  });
  const [shown, setShown] = useState<Asked | null>(null);
  const next = useRef<Asked | null>(null);
  const newest = useRef<Asked>({ document, mark, wish });
  const fallback = useRef<DesignDocument | null>(readable);
  const busy = useRef(false);
  /** Ends the pause before the next try. */
  const pausing = useRef<(() => void) | null>(null);

  if (!(shown?.document === document && shown.mark === mark && shown.wish === wish)) {
    setShown({ document, mark, wish });
    const known = answers.get({ document, mark, wish })?.live;
    if (known) setState((old) => showing(old, known, document));
  }

  const run = useCallback(async () => {
    next.current = newest.current;
    if (busy.current) return;
    busy.current = true;
    for (let tries = 0; next.current; ) {
      const asked: Asked = next.current;
      next.current = null;
      if (answers.get(asked) && asked !== newest.current) continue;
      const { retry, live, faults, trouble } = await answers.ask(asked);
      // Something newer may have been known, and stand there already.
      if (asked === newest.current || !answers.get(newest.current))
        setState((old) => (live ? showing(old, live, asked.document) : { ...old, faults, trouble }));
      if (live) fallback.current = null;
      else if (faults.length > 0 && fallback.current) {
        const of = fallback.current;
        const before = (await answers.ask({ ...asked, document: of })).live;
        fallback.current = null;
        if (before) setState((old) => ({ ...old, live: before, of }));
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
  }, [answers]);

  useEffect(() => {
    newest.current = { document, mark, wish };
    if (!answers.get(newest.current)) void run();
    pausing.current?.();
  }, [document, mark, wish, run, answers]);
  useEffect(
    () =>
      whenBack(() => {
        void run();
        pausing.current?.();
      }),
    [run],
  );
  const ahead = useCallback(
    (documents: DesignDocument[]) =>
      answers.next(documents.map((one) => ({ ...newest.current, document: one }))),
    [answers],
  );
  return { ...state, ahead };
}

/** What is the same as before stays the same object, so that nothing is painted anew for it. */
const showing = (old: LiveState, live: Live, of: DesignDocument): LiveState => ({
  live: replaceEqualDeep(old.live, live),
  of,
  faults: [],
  trouble: "",
});
