/** Adding and removing stages of the document. Pure. */
import { at, type DesignDocument, type Stage, withValue } from "../../design/document";
import type { Selected } from "../../design/selected";

/** A usual stage of each kind, to be changed. */
export const NEW_STAGES: Record<Stage["kind"], Stage> = {
  gear: { kind: "gear", driver_teeth: 16, driven_teeth: 48, module: "1 mm" },
  belt: { kind: "belt", driver_teeth: 18, driven_teeth: 36, pitch: "5 mm", belt_teeth: 84 },
  chain: { kind: "chain", driver_teeth: 11, driven_teeth: 22, pitch: "6.35 mm", links: 60 },
  gearbox: { kind: "gearbox", ratio: 4 },
};

const PLACE = /^(.*\.stages)\[(\d+)\]$/;

/** A new stage after the one at `path`, or first where `path` is the motor's. */
export function addStage(
  document: DesignDocument,
  path: string,
  kind: Stage["kind"],
): { document: DesignDocument; selected: Selected } {
  const place = PLACE.exec(path);
  const list = place?.[1] ?? "drive.branches[0].stages";
  const index = place ? Number(place[2]) + 1 : 0;
  const stages = [...((at(document, list) as Stage[] | undefined) ?? [])];
  stages.splice(index, 0, NEW_STAGES[kind]);
  const selected = { path: `${list}[${index}]`, member: kind === "gearbox" ? "box" : "driver" };
  return { document: withValue(document, list, stages), selected };
}

export function removeStage(document: DesignDocument, path: string): DesignDocument {
  return withValue(document, path, undefined);
}
