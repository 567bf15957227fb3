/** Saves the document shortly after each change, and at least every few seconds; nobody's work is written over. */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Conflict } from "../api/client";
import { pause, whenBack } from "../api/connection";
import { takeAll } from "../ui/fields/leaving";
import { type DesignDocument, differences } from "./document";
import { dropDraft, keepDraft } from "./draft";
import { merge } from "./merge";
import { attempt } from "./saving";
import { type Base, sawRevision } from "./seen";

const QUIET_MS = 600;
const LONGEST_MS = 5000;

export type SaveState =
  | { kind: "saved"; at: string }
  | { kind: "unsaved" }
  | { kind: "saving" }
  | { kind: "waiting"; why: string }
  | { kind: "conflict"; conflict: Conflict };

export interface Owner {
  account: string;
  vehicle: string;
  tab: string;
}

export interface Autosave {
  state: SaveState;
  base: React.RefObject<Base>;
  /** Go on from another revision, which others have saved. */
  rebase: (base: Base) => void;
}

/**
 * @param merged is told a document that holds both people's changes, and whose they are.
 */
export function useAutosave(
  owner: Owner,
  document: DesignDocument,
  first: Base,
  merged: (document: DesignDocument, by: Conflict["theirs"]) => void,
  readOnly: boolean,
): Autosave {
  const base = useRef(first);
  const present = useRef(document);
  present.current = document;
  const onMerged = useRef(merged);
  onMerged.current = merged;
  const busy = useRef(false);
  const tries = useRef(0);
  const since = useRef(0);
  const [state, setState] = useState<SaveState>(() =>
    clean(first, document) ? { kind: "saved", at: first.saved_at } : { kind: "unsaved" },
  );
  const [turn, setTurn] = useState(0);
  const again = useCallback(() => setTurn((t) => t + 1), []);
  const { account, vehicle, tab } = owner;
  const queries = useQueryClient();

  const standOn = useCallback(
    (next: Base) => {
      base.current = next;
      sawRevision(vehicle, next);
    },
    [vehicle],
  );
  /** Others have saved: both changes are kept, or where both changed one value somebody is asked. */
  const met = useCallback(
    (conflict: Conflict, from: Base): SaveState => {
      const theirs = revisionOf(conflict);
      const both = merge(from.document, present.current, theirs.document);
      if (both.collisions.length > 0) return { kind: "conflict", conflict };
      standOn(theirs);
      onMerged.current(both.document, conflict.theirs);
      return { kind: "unsaved" };
    },
    [standOn],
  );
  const save = useCallback(
    async (parting = false) => {
      const sent = present.current;
      const from = base.current;
      busy.current = true;
      if (!parting) setState({ kind: "saving" });
      const outcome = await attempt(vehicle, from, sent, parting);
      busy.current = false;
      if (outcome.kind === "refused") {
        setState({ kind: "waiting", why: outcome.why });
        if (outcome.again) window.setTimeout(again, pause(tries.current++));
        return;
      }
      tries.current = 0;
      if (parting) void queries.invalidateQueries({ queryKey: ["vehicles"] });
      if (outcome.kind === "saved") {
        standOn(outcome.base);
        if (present.current === sent) dropDraft(account, vehicle, tab);
        const at = outcome.base.saved_at;
        setState(present.current === sent ? { kind: "saved", at } : { kind: "unsaved" });
      } else setState(met(outcome.conflict, from));
    },
    [account, vehicle, tab, again, queries, standOn, met],
  );

  // biome-ignore lint/correctness/useExhaustiveDependencies: a turn asks for another try of the same document
  useEffect(() => {
    if (readOnly) return;
    if (clean(base.current, document)) {
      since.current = 0;
      dropDraft(account, vehicle, tab);
      setState((old) => (old.kind === "conflict" ? old : { kind: "saved", at: base.current.saved_at }));
      return;
    }
    keepDraft(account, vehicle, tab, {
      base: base.current.number,
      from: base.current.document,
      document,
    });
    if (state.kind === "conflict") return;
    if (state.kind === "saved") setState({ kind: "unsaved" });
    since.current ||= performance.now();
    const left = LONGEST_MS - (performance.now() - since.current);
    const due = Math.max(0, Math.min(QUIET_MS, left));
    const wait = window.setTimeout(() => {
      if (busy.current) return again();
      since.current = 0;
      void save();
    }, due);
    return () => window.clearTimeout(wait);
  }, [document, turn, save]);

  useEffect(() => whenBack(again), [again]);
  useLeaving(base, present, save, readOnly);

  const rebase = useCallback(
    (onto: Base) => {
      standOn(onto);
      setState({ kind: "unsaved" });
      again();
    },
    [again, standOn],
  );

  return { state, base, rebase };
}

/** What is typed reaches the server, or at least the draft, when the page is hidden, closed or changed. */
function useLeaving(
  base: React.RefObject<Base>,
  present: React.RefObject<DesignDocument>,
  save: (parting: boolean) => Promise<void>,
  readOnly: boolean,
): void {
  useEffect(() => {
    if (readOnly) return;
    const part = () => {
      if (!clean(base.current, present.current)) void save(true);
    };
    const hidden = () => {
      if (window.document.visibilityState !== "hidden") return;
      takeAll();
      part();
    };
    window.document.addEventListener("visibilitychange", hidden);
    window.addEventListener("pagehide", hidden);
    return () => {
      window.document.removeEventListener("visibilitychange", hidden);
      window.removeEventListener("pagehide", hidden);
      part();
    };
  }, [base, present, save, readOnly]);
}

export function revisionOf({ theirs }: Conflict): Base {
  const document = theirs.document as unknown as DesignDocument;
  return { number: theirs.number, document, saved_at: theirs.saved_at };
}

export function clean(base: Base, document: DesignDocument): boolean {
  return document === base.document || differences(document, base.document).length === 0;
}
