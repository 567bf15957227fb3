/** The bin on this screen: what the server has, what was typed since, and every step back and forth. A pure reducer. */
import type { Fault } from "../../api/client";

export type PartDocument = { id: string; kind: string } & Record<string, unknown>;

export interface Stored {
  version: number;
  document: PartDocument;
}

export interface Change {
  id: string;
  before: PartDocument | null;
  after: PartDocument | null;
}

export interface Bin {
  stored: ReadonlyMap<string, Stored>;
  /** Typed and not saved yet; null for what is to go. */
  pending: ReadonlyMap<string, PartDocument | null>;
  /** Why a part cannot be saved as it is. */
  faults: ReadonlyMap<string, Fault[]>;
  /** Parts that somebody else has changed since. */
  conflict: string[];
  past: Change[][];
  future: Change[][];
}

export type BinAction =
  | { type: "edit"; changes: Change[] }
  | { type: "undo" }
  | { type: "redo" }
  | { type: "loaded"; parts: Stored[] }
  | { type: "saved"; sent: Sent[]; parts: Stored[] }
  | { type: "refused"; faults: Map<string, Fault[]> }
  | { type: "stale"; ids: string[]; present: Stored[] }
  | { type: "keep mine" }
  | { type: "take theirs" };

/** One entry of a request, as the server wants it. */
export interface Sent {
  id: string;
  base: number;
  document: PartDocument | null;
}

export function emptyBin(pending: [string, PartDocument | null][] = []): Bin {
  return {
    stored: new Map(),
    pending: new Map(pending),
    faults: new Map(),
    conflict: [],
    past: [],
    future: [],
  };
}

export function bin(state: Bin, action: BinAction): Bin {
  switch (action.type) {
    case "edit": {
      const changes = action.changes.filter((c) => c.before !== c.after);
      if (changes.length === 0) return state;
      return { ...put(state, changes), past: [...state.past, changes], future: [] };
    }
    case "undo":
    case "redo":
      return stepped(state, action.type);
    case "loaded":
      return settled({ ...state, stored: new Map(action.parts.map((part) => [part.document.id, part])) });
    case "saved":
      return saved(state, action.sent, action.parts);
    case "refused":
      return { ...state, faults: new Map([...state.faults, ...action.faults]) };
    case "stale":
      return { ...withPresent(state, action.ids, action.present), conflict: action.ids };
    case "keep mine":
      return { ...state, conflict: [] };
    case "take theirs":
      return { ...dropped(state, state.conflict), conflict: [] };
  }
}

/** The parts as they are seen: the server's with what was typed over them, new ones at the end. */
export function partsOf(state: Bin): PartDocument[] {
  const seen = [...state.stored.values()].map((part) => over(state, part.document.id, part.document));
  const added = [...state.pending].filter(([id]) => !state.stored.has(id)).map(([, document]) => document);
  return [...seen, ...added].filter((part): part is PartDocument => part !== null);
}

export function partOf(state: Bin, id: string): PartDocument | null {
  return over(state, id, state.stored.get(id)?.document ?? null);
}

/** What is to be saved now: all that was typed but what cannot be read yet. */
export function toSend(state: Bin): Sent[] {
  if (state.conflict.length > 0) return [];
  return [...state.pending]
    .filter(([id]) => !state.faults.has(id))
    .map(([id, document]) => ({ id, base: state.stored.get(id)?.version ?? 0, document }));
}

function over(state: Bin, id: string, document: PartDocument | null): PartDocument | null {
  const typed = state.pending.get(id);
  return typed === undefined ? document : typed;
}

function put(state: Bin, changes: Change[]): Bin {
  const pending = new Map(state.pending);
  const faults = new Map(state.faults);
  for (const { id, after } of changes) {
    pending.set(id, after);
    faults.delete(id);
  }
  return settled({ ...state, pending, faults });
}

/** Without what is the server's already, and what is to go that it never had. */
function settled(state: Bin): Bin {
  const left = [...state.pending].filter(([id, document]) => {
    const kept = state.stored.get(id)?.document ?? null;
    return JSON.stringify(kept) !== JSON.stringify(document);
  });
  return { ...state, pending: new Map(left) };
}

function stepped(state: Bin, way: "undo" | "redo"): Bin {
  const step = way === "undo" ? state.past.at(-1) : state.future[0];
  if (!step) return state;
  if (way === "redo") {
    return { ...put(state, step), past: [...state.past, step], future: state.future.slice(1) };
  }
  const back = step.map((c) => ({ id: c.id, before: c.after, after: c.before }));
  return { ...put(state, back), past: state.past.slice(0, -1), future: [step, ...state.future] };
}

function saved(state: Bin, sent: Sent[], parts: Stored[]): Bin {
  const stored = new Map(state.stored);
  const pending = new Map(state.pending);
  for (const { id, document } of sent) {
    if (document === null) stored.delete(id);
    // What was typed while it was being saved is still to be saved.
    if (pending.get(id) === document) pending.delete(id);
  }
  for (const part of parts) stored.set(part.document.id, part);
  return { ...state, stored, pending };
}

function withPresent(state: Bin, ids: string[], present: Stored[]): Bin {
  const stored = new Map(state.stored);
  for (const id of ids) stored.delete(id);
  for (const part of present) stored.set(part.document.id, part);
  return { ...state, stored };
}

function dropped(state: Bin, ids: string[]): Bin {
  const pending = new Map(state.pending);
  const faults = new Map(state.faults);
  for (const id of ids) {
    pending.delete(id);
    faults.delete(id);
  }
  return { ...state, pending, faults };
}
