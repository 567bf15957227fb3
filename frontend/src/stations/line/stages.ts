/** Adding and removing stages of the document. Pure. */
import { at, type DesignDocument, type Stage, withValue } from "../../design/document";
import type { Selected } from "../../design/selected";

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

const PLACE = /^(.*\.stages)\[(\d+)\]$/;

/** A new stage after the one at `path`, or first where `path` is the motor's. */
export function addStage(
  document: DesignDocument,
  path: string,
  kind: Stage["kind"],
): { document: DesignDocument; selected: Selected } {
  const place = PLACE.exec(path);
  // Only the trunk may change gear, so a box of several speeds goes there.
  const trunk = kind === "speeds" && !place?.[1]?.startsWith("drive.stages");
  const list = trunk ? "drive.stages" : (place?.[1] ?? "drive.branches[0].stages");
  const index = place && !trunk ? Number(place[2]) + 1 : 0;
  const stages = [...((at(document, list) as Stage[] | undefined) ?? [])];
  stages.splice(index, 0, NEW_STAGES[kind]);
  const selected = { path: `${list}[${index}]`, member: BOXES.includes(kind) ? "box" : "driver" };
  return { document: withValue(document, list, stages), selected };
}

export function removeStage(document: DesignDocument, path: string): DesignDocument {
  return withValue(document, path, undefined);
}
