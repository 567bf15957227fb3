/** Undo and redo of whole documents: a pure reducer. */

export interface History<T> {
  past: T[];
  present: T;
  future: T[];
  /** Of the last edit: another one of the same gesture, a drag for example, is undone together with it. */
  gesture?: string;
}

export type HistoryAction<T> =
  | { type: "edit"; edit: (present: T) => T; gesture?: string }
  | { type: "undo" }
  | { type: "redo" };

/** Steps kept; a document is small, an evening long. */
const DEPTH = 500;

export function begin<T>(document: T): History<T> {
  return { past: [], present: document, future: [] };
}

export function history<T>(state: History<T>, action: HistoryAction<T>): History<T> {
  switch (action.type) {
    case "edit": {
      const next = action.edit(state.present);
      if (next === state.present) return state;
      const { gesture } = action;
      if (gesture !== undefined && gesture === state.gesture) return { ...state, present: next };
      return { past: [...state.past, state.present].slice(-DEPTH), present: next, future: [], gesture };
    }
    case "undo": {
      const before = state.past.at(-1);
      if (before === undefined) return state;
      return { past: state.past.slice(0, -1), present: before, future: [state.present, ...state.future] };
    }
    case "redo": {
      const [after, ...rest] = state.future;
      if (after === undefined) return state;
      return { past: [...state.past, state.present], present: after, future: rest };
    }
  }
}
