/** What every station works with: the document, its live figures, and the ways to change it. */
import { createContext, useContext } from "react";
import type { Fault, Live } from "../api/client";
import type { DesignDocument } from "../design/document";
import type { Selected } from "../design/selected";

export interface Work {
  document: DesignDocument;
  live: Live;
  faults: Fault[];
  selected: Selected | null;
  marked: boolean;
  readOnly: boolean;
  select: (selected: Selected | null) => void;
  /** Put another value at a path; undefined takes it away. */
  set: (path: string, value: unknown) => void;
  replace: (document: DesignDocument) => void;
  setMark: () => void;
  dropMark: () => void;
}

const Context = createContext<Work | null>(null);
export const WorkProvider = Context.Provider;

export function useWork(): Work {
  const work = useContext(Context);
  if (work === null) throw new Error("useWork is wanted inside WorkProvider");
  return work;
}

/** The fault at a path, or within it. */
export function faultAt(faults: Fault[], path: string): Fault | undefined {
  return faults.find(
    (f) => f.path === path || f.path.startsWith(`${path}.`) || f.path.startsWith(`${path}[`),
  );
}

export function siAt(live: Live, path: string): number | undefined {
  return live.quantities.find((q) => q.path === path)?.si;
}
