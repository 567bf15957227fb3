/** Changing the stages and branches of a document. Pure; each tells what is selected afterwards. */

import { type Kinds, measureKeys, type StageKind } from "../words/kinds";
import { at, type Branch, type DesignDocument, type Stage, withValue } from "./document";
import type { Selected } from "./selected";

export interface Changed {
  document: DesignDocument;
  selected: Selected | null;
}

const PLACE = /^(.*\.)?stages\[(\d+)\]$/;
const TRUNK = "drive.stages";

interface Place {
  list: string;
  index: number;
}

/** The list a stage stands in, and its place there; null for a source. */
export function placeOf(path: string): Place | null {
  const match = PLACE.exec(path);
  return match && { list: `${match[1] ?? ""}stages`, index: Number(match[2]) };
}

export const branchPath = (path: string) => /^drive\.branches\[\d+\]/.exec(path)?.[0] ?? "drive.branches[0]";

const stagesAt = (document: DesignDocument, list: string): Stage[] =>
  (at(document, list) as Stage[] | undefined) ?? [];

/** What is selected of a stage: its driver, or the whole of a closed box. */
export const selectedOf = (kinds: Kinds, path: string, stage: Pick<Stage, "kind">): Selected => ({
  path,
  member: kinds.of(stage.kind)?.measure ? "driver" : "box",
});

const trunkOnly = (kinds: Kinds, stage: Stage) => kinds.of(stage.kind)?.trunk_only ?? false;

const newStage = (kind: StageKind) => structuredClone(kind.start) as Stage;

function inserted(
  kinds: Kinds,
  document: DesignDocument,
  list: string,
  index: number,
  stage: Stage,
): Changed {
  const stages = [...stagesAt(document, list)];
  stages.splice(index, 0, stage);
  return {
    document: withValue(document, list, stages),
    selected: selectedOf(kinds, `${list}[${index}]`, stage),
  };
}

/** A new stage after the one at `path`, or first where `path` is a source's. */
export function addStage(kinds: Kinds, document: DesignDocument, path: string, kind: StageKind): Changed {
  const place = placeOf(path);
  const stage = newStage(kind);
  if (kind.trunk_only && place?.list !== TRUNK) return inserted(kinds, document, TRUNK, 0, stage);
  if (!place) return inserted(kinds, document, `${branchPath(path)}.stages`, 0, stage);
  return inserted(kinds, document, place.list, place.index + 1, stage);
}

export function removeStage(kinds: Kinds, document: DesignDocument, path: string): Changed {
  const place = placeOf(path);
  if (!place) return { document, selected: null };
  const left = stagesAt(document, place.list).filter((_, i) => i !== place.index);
  const near = Math.min(place.index, left.length - 1);
  const next = left[near];
  return {
    document: withValue(document, path, undefined),
    selected: next ? selectedOf(kinds, `${place.list}[${near}]`, next) : null,
  };
}

export function duplicateStage(kinds: Kinds, document: DesignDocument, path: string): Changed {
  const place = placeOf(path);
  const stage = place && stagesAt(document, place.list)[place.index];
  if (!place || !stage || trunkOnly(kinds, stage)) return { document, selected: null };
  return inserted(kinds, document, place.list, place.index + 1, stage);
}

/** The stage one place earlier or later; out of the only branch into the trunk and back. */
export function moveStage(kinds: Kinds, document: DesignDocument, path: string, by: 1 | -1): Changed {
  const place = placeOf(path);
  const stage = place && stagesAt(document, place.list)[place.index];
  if (!place || !stage) return { document, selected: null };
  const length = stagesAt(document, place.list).length;
  const index = place.index + by;
  if (index >= 0 && index < length) return shifted(kinds, document, place, index, stage);
  const alone = document.drive.branches.length === 1;
  const own = "drive.branches[0].stages";
  const out = removeStage(kinds, document, path).document;
  if (by > 0 && place.list !== TRUNK && alone) return inserted(kinds, out, TRUNK, 0, stage);
  if (by < 0 && place.list === TRUNK && alone && !trunkOnly(kinds, stage))
    return inserted(kinds, out, own, stagesAt(document, own).length, stage);
  return { document, selected: selectedOf(kinds, path, stage) };
}

function shifted(kinds: Kinds, document: DesignDocument, place: Place, index: number, stage: Stage): Changed {
  const stages = stagesAt(document, place.list).filter((_, i) => i !== place.index);
  stages.splice(index, 0, stage);
  return {
    document: withValue(document, place.list, stages),
    selected: selectedOf(kinds, `${place.list}[${index}]`, stage),
  };
}

/** A stage put where another one stands, as by dragging it there; within one list. */
export function dropStage(kinds: Kinds, document: DesignDocument, from: string, to: string): Changed {
  const one = placeOf(from);
  const other = placeOf(to);
  const stage = one && stagesAt(document, one.list)[one.index];
  if (!one || !other || !stage || from === to) return { document, selected: null };
  if (one.list === other.list) return shifted(kinds, document, one, other.index, stage);
  if (trunkOnly(kinds, stage)) return { document, selected: null };
  return inserted(kinds, removeStage(kinds, document, from).document, other.list, other.index, stage);
}

/** Driver and driven of a stage exchanged; null where it has no two members. */
export function swapMembers(kinds: Kinds, document: DesignDocument, path: string): DesignDocument | null {
  const stage = at(document, path) as Stage | undefined;
  const keys = stage && measureKeys(kinds.of(stage.kind));
  if (!stage || !keys || stage.internal) return null;
  const [driver, driven] = keys;
  return withValue(document, path, { ...stage, [driver]: stage[driven], [driven]: stage[driver] });
}

/** One branch more, like the last one; it joins where that one does. */
export function addBranch(document: DesignDocument): Changed {
  const branches = document.drive.branches;
  const copy = branches.at(-1) as Branch;
  return {
    document: withValue(document, "drive.branches", [...branches, copy]),
    selected: { path: `drive.branches[${branches.length}].source`, member: "motor" },
  };
}

/** A branch taken out; the last one stays. */
export function removeBranch(document: DesignDocument, index: number): Changed {
  const branches = document.drive.branches;
  if (branches.length < 2) return { document, selected: null };
  const left = branches.filter((_, i) => i !== index);
  const motors = left.some((branch) => branch.source.kind === "motor");
  const changed = withValue(document, "drive.branches", left);
  return {
    document: motors ? changed : withValue(changed, "drive.supply", undefined),
    selected: { path: "drive.branches[0].source", member: "motor" },
  };
}
