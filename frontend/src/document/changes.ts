/** What the core says that a choice changes in the document: values by their paths, null where one goes. Pure. */
import { at, type DesignDocument, withValues } from "./document";

export type Changes = Record<string, unknown>;

export function withChanges(document: DesignDocument, changes: Changes): DesignDocument {
  const entries = Object.entries(changes).map(([path, value]) => [path, value ?? undefined]);
  return withValues(document, Object.fromEntries(entries));
}

/** Whether all of it stands in the document already. */
export const holds = (document: DesignDocument, changes: Changes): boolean =>
  Object.entries(changes).every(([path, value]) => (at(document, path) ?? null) === value);
