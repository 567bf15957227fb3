/** Saves the document shortly after each change; a stale one is never written over. */
import { useCallback, useEffect, useRef, useState } from "react";
import { api, type Conflict, type Refusal } from "../api/client";
import type { DesignDocument } from "./document";
import { dropDraft, keepDraft } from "./draft";

const QUIET_MS = 600;
const RETRY_MS = 4000;

export type SaveState =
  | { kind: "saved"; at: string }
  | { kind: "saving" }
  | { kind: "waiting"; why: string }
  | { kind: "conflict"; conflict: Conflict };

interface Autosave {
  state: SaveState;
  /** Go on from another revision: the number the next save is based on. */
  rebase: (number: number) => void;
}

export function useAutosave(
  vehicle: string,
  document: DesignDocument,
  first: { number: number; saved_at: string },
  loaded: DesignDocument,
): Autosave {
  const base = useRef(first.number);
  const saved = useRef(loaded);
  const busy = useRef(false);
  const [state, setState] = useState<SaveState>({ kind: "saved", at: first.saved_at });
  const [turn, setTurn] = useState(0);

  const save = useCallback(async () => {
    busy.current = true;
    setState({ kind: "saving" });
    try {
      const { data, error, response } = await api.POST("/api/vehicles/{vehicle}/revisions/", {
        params: { path: { vehicle } },
        body: { base: base.current, document: document as unknown as Record<string, unknown> },
      });
      if (data) {
        base.current = data.number;
        saved.current = document;
        dropDraft(vehicle);
        setState({ kind: "saved", at: data.saved_at });
      } else if (response.status === 409) {
        setState({ kind: "conflict", conflict: error as Conflict });
      } else {
        const refusal = error as Refusal | undefined;
        setState({ kind: "waiting", why: reason(refusal, response.status) });
      }
    } catch {
      setState({ kind: "waiting", why: "no connection; kept on this device" });
      window.setTimeout(() => setTurn((t) => t + 1), RETRY_MS);
    } finally {
      busy.current = false;
    }
  }, [document, vehicle]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a turn asks for another try of the same document
  useEffect(() => {
    if (document === saved.current) return;
    keepDraft(vehicle, { base: base.current, document });
    if (state.kind === "conflict") return;
    const wait = window.setTimeout(() => (busy.current ? setTurn((t) => t + 1) : void save()), QUIET_MS);
    return () => window.clearTimeout(wait);
  }, [document, turn, save]);

  const rebase = useCallback((number: number) => {
    base.current = number;
    setState({ kind: "saving" });
    setTurn((t) => t + 1);
  }, []);

  return { state, rebase };
}

function reason(refusal: Refusal | undefined, status: number): string {
  const count = refusal?.faults?.length ?? 0;
  if (count > 0)
    return `${count === 1 ? "one value" : `${count} values`} cannot be read; the figures are those before`;
  return refusal?.detail ?? `the server answered with ${status}`;
}
