/**
 * The design evaluated while it changes: always ending with the newest, never out of order. What was answered before is
 * there at once.
 */
import { useCallback, useEffect, useState } from "react";
import type { Live } from "../api/client";
import { whenBack } from "../api/connection";
import { Answers } from "./answers";
import { type Asked, askLive, type Wish } from "./asking";
import type { DesignDocument } from "./document";
import { Follower, type LiveState, showing } from "./follower";

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
  const [follower] = useState(() => new Follower(answers, setState, { document, mark, wish }, readable));
  const [shown, setShown] = useState<Asked | null>(null);

  if (!(shown?.document === document && shown.mark === mark && shown.wish === wish)) {
    setShown({ document, mark, wish });
    const known = answers.get({ document, mark, wish })?.live;
    if (known) setState((old) => showing(old, known, document));
  }

  useEffect(() => follower.about({ document, mark, wish }), [document, mark, wish, follower]);
  useEffect(() => whenBack(() => follower.again()), [follower]);
  const ahead = useCallback((documents: DesignDocument[]) => follower.ahead(documents), [follower]);
  return { ...state, ahead };
}
