/** The kinds of stages, as the core tells them: the page has no table of its own. */
import type { Vocabulary } from "../api/client";

export type StageKind = Vocabulary["stages"][number];

export interface Kinds {
  list: StageKind[];
  of: (kind: string) => StageKind | undefined;
}

export function makeKinds(list: StageKind[]): Kinds {
  const known = new Map(list.map((entry) => [entry.kind, entry]));
  return { list, of: (kind) => known.get(kind) };
}

/** Where a stage of a kind keeps the measures of its driver and its driven wheel; none of a closed box. */
export function measureKeys(kind: StageKind | undefined): [string, string] | null {
  return kind?.measure ? [`driver_${kind.measure}`, `driven_${kind.measure}`] : null;
}
