/** Changing the stages and branches of a document. Pure; each tells what is selected afterwards. */
import { at, type Branch, type DesignDocument, type Stage, withValue } from "../../design/document";
import type { Selected } from "../../design/selected";

export interface Changed {
  document: DesignDocument;
  selected: Selected | null;
}

/** A usual stage of each kind, to be changed. */
export const NEW_STAGES: Record<Stage["kind"], Stage> = {
  gear: { kind: "gear", driver_teeth: 16, driven_teeth: 48, module: "1 mm" },
  belt: { kind: "belt", driver_teeth: 18, driven_teeth: 36, pitch: "5 mm", belt_teeth: 84 },
  chain: { kind: "chain", driver_teeth: 11, driven_teeth: 22, pitch: "6.35 mm", links: 60 },
  v_belt: { kind: "v_belt", driver_pitch_diameter: "60 mm", driven_pitch_diameter: "150 mm" },
  bevel: { kind: "bevel", driver_teeth: 16, driven_teeth: 32 },
  planetary: { kind: "planetary", reductions: [4, 3] },
  gearbox: { kind: "gearbox", ratio: 4 },
  worm: { kind: "worm", ratio: 20, efficiency: 0.6 },
  speeds: { kind: "speeds", ratios: [3.2, 1.9, 1.2], shift_time: "0.3 s" },
};

/** Kinds drawn as a closed box, chosen as a whole. */
export const BOXES: readonly Stage["kind"][] = ["planetary", "gearbox", "worm", "speeds"];
const TOOTHED: readonly Stage["kind"][] = ["gear", "belt", "chain", "bevel"];

const PLACE = /^(.*\.)?stages\[(\d+)\]$/;
const TRUNK = "drive.stages";

interface Place {
  list: string;
  index: number;
}

/** The list a stage stands in, and its place there; null for a source. */
export function placeOf(path: string): Place | null {
  const found = PLACE.exec(path);
  return found && { list: `${found[1] ?? ""}stages`, index: Number(found[2]) };
}

export const branchPath = (path: string) => /^drive\.branches\[\d+\]/.exec(path)?.[0] ?? "drive.branches[0]";

const stagesAt = (document: DesignDocument, list: string): Stage[] =>
  (at(document, list) as Stage[] | undefined) ?? [];

const selectedOf = (list: string, index: number, stage: Stage): Selected => ({
  path: `${list}[${index}]`,
  member: BOXES.includes(stage.kind) ? "box" : "driver",
});

function inserted(document: DesignDocument, list: string, index: number, stage: Stage): Changed {
  const stages = [...stagesAt(document, list)];
  stages.splice(index, 0, stage);
  return { document: withValue(document, list, stages), selected: selectedOf(list, index, stage) };
}

/** A new stage after the one at `path`, or first where `path` is a source's. */
export function addStage(document: DesignDocument, path: string, kind: Stage["kind"]): Changed {
  const place = placeOf(path);
  // Only the trunk may change gear, so a box of several speeds goes there.
  if (kind === "speeds" && place?.list !== TRUNK) return inserted(document, TRUNK, 0, NEW_STAGES[kind]);
  if (!place) return inserted(document, `${branchPath(path)}.stages`, 0, NEW_STAGES[kind]);
  return inserted(document, place.list, place.index + 1, NEW_STAGES[kind]);
}

export function removeStage(document: DesignDocument, path: string): Changed {
  const place = placeOf(path);
  if (!place) return { document, selected: null };
  const left = stagesAt(document, place.list).filter((_, i) => i !== place.index);
  const near = Math.min(place.index, left.length - 1);
  const next = left[near];
  return {
    document: withValue(document, path, undefined),
    selected: next ? selectedOf(place.list, near, next) : null,
  };
}

export function duplicateStage(document: DesignDocument, path: string): Changed {
  const place = placeOf(path);
  const stage = place && stagesAt(document, place.list)[place.index];
  // Only one box of several speeds is computed.
  if (!place || !stage || stage.kind === "speeds") return { document, selected: null };
  return inserted(document, place.list, place.index + 1, stage);
}

/** The stage one place earlier or later; out of the only branch into the trunk and back. */
export function moveStage(document: DesignDocument, path: string, by: 1 | -1): Changed {
  const place = placeOf(path);
  const stage = place && stagesAt(document, place.list)[place.index];
  if (!place || !stage) return { document, selected: null };
  const length = stagesAt(document, place.list).length;
  const index = place.index + by;
  if (index >= 0 && index < length) return shifted(document, place, index, stage);
  const alone = document.drive.branches.length === 1;
  const own = "drive.branches[0].stages";
  const out = removeStage(document, path).document;
  if (by > 0 && place.list !== TRUNK && alone) return inserted(out, TRUNK, 0, stage);
  if (by < 0 && place.list === TRUNK && alone && stage.kind !== "speeds")
    return inserted(out, own, stagesAt(document, own).length, stage);
  return { document, selected: selectedOf(place.list, place.index, stage) };
}

function shifted(document: DesignDocument, place: Place, index: number, stage: Stage): Changed {
  const stages = stagesAt(document, place.list).filter((_, i) => i !== place.index);
  stages.splice(index, 0, stage);
  return {
    document: withValue(document, place.list, stages),
    selected: selectedOf(place.list, index, stage),
  };
}

/** A stage put where another one stands, as by dragging it there; within one list. */
export function dropStage(document: DesignDocument, from: string, to: string): Changed {
  const one = placeOf(from);
  const other = placeOf(to);
  const stage = one && stagesAt(document, one.list)[one.index];
  if (!one || !other || !stage || from === to) return { document, selected: null };
  if (one.list === other.list) return shifted(document, one, other.index, stage);
  if (stage.kind === "speeds") return { document, selected: null };
  return inserted(removeStage(document, from).document, other.list, other.index, stage);
}

/**
 * Another kind of stage in its place. Kept is what both kinds have: teeth, else the ratio as the core gave it, and a
 * width; an efficiency was that of the old kind.
 */
export function changeKind(
  document: DesignDocument,
  path: string,
  kind: Stage["kind"],
  ratio: number,
): Changed {
  const old = at(document, path) as Stage | undefined;
  const place = placeOf(path);
  if (!old || !place || (kind === "speeds" && place.list !== TRUNK)) return { document, selected: null };
  const made: Stage = { ...NEW_STAGES[kind], ...kept(old, kind, ratio) };
  // A length belongs to the old pair of wheels.
  if (kind === "belt") delete made.belt_teeth;
  if (kind === "chain") delete made.links;
  return { document: withValue(document, path, made), selected: selectedOf(place.list, place.index, made) };
}

function kept(old: Stage, kind: Stage["kind"], ratio: number): Partial<Stage> {
  const width =
    old.width !== undefined && ["gear", "belt", "chain"].includes(kind) ? { width: old.width } : {};
  const exact = Number(ratio.toPrecision(6));
  if (kind === "gearbox" || kind === "worm") return { ratio: exact };
  if (kind === "planetary") return { reductions: [exact] };
  if (kind === "speeds") return { ratios: [exact] };
  if (kind === "v_belt") return { driven_pitch_diameter: `${Number((60 * ratio).toPrecision(4))} mm` };
  if (TOOTHED.includes(old.kind))
    return { ...width, driver_teeth: old.driver_teeth, driven_teeth: old.driven_teeth };
  const driver = NEW_STAGES[kind].driver_teeth ?? 16;
  return { driven_teeth: Math.max(5, Math.round(driver * ratio)) };
}

/** Driver and driven of a stage exchanged; null where it has no two members. */
export function swapMembers(document: DesignDocument, path: string): DesignDocument | null {
  const stage = at(document, path) as Stage | undefined;
  if (!stage) return null;
  if (TOOTHED.includes(stage.kind) && !stage.internal)
    return withValue(document, path, {
      ...stage,
      driver_teeth: stage.driven_teeth,
      driven_teeth: stage.driver_teeth,
    });
  if (stage.kind === "v_belt")
    return withValue(document, path, {
      ...stage,
      driver_pitch_diameter: stage.driven_pitch_diameter,
      driven_pitch_diameter: stage.driver_pitch_diameter,
    });
  return null;
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
  const made = withValue(document, "drive.branches", left);
  return {
    document: motors ? made : withValue(made, "drive.supply", undefined),
    selected: { path: "drive.branches[0].source", member: "motor" },
  };
}
