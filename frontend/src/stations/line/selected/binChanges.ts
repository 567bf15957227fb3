/** What of a part of the bin goes where in a design. Pure. */
import type { PartDocument } from "../../../document/bin/bin";
import { type Kinds, ratioField, type StageKind } from "../../../words/kinds";

type Changes = Record<string, unknown>;

/** A motor or engine with its controller or clutch; the name goes with it. */
export function sourceChanges(branch: string, part: PartDocument): Changes {
  const source = part.source as Record<string, unknown>;
  const engine = part.kind === "engine";
  return {
    [`${branch}.source`]: part.name ? { ...source, name: part.name } : source,
    ...(engine || part.controller ? { [`${branch}.controller`]: engine ? undefined : part.controller } : {}),
    ...(!engine || part.clutch ? { [`${branch}.clutch`]: engine ? part.clutch : undefined } : {}),
  };
}

/** The kind of stage that a bought part is as a whole, by what it says its ratio with; none of several speeds. */
export function wholeKind(kinds: Kinds, part: PartDocument): StageKind | undefined {
  return kinds.list.find((kind) => {
    const key = ratioField(kind)?.key;
    return kind.whole_part === part.kind && key !== undefined && part[key] !== undefined;
  });
}

/** A bought part as the stage at a path. */
export function wholeChanges(kinds: Kinds, path: string, part: PartDocument): Changes {
  const kind = wholeKind(kinds, part);
  const key = kind && ratioField(kind)?.key;
  if (!kind || !key) return {};
  const efficiency = part.efficiency === undefined ? {} : { efficiency: part.efficiency };
  return { [path]: { kind: kind.kind, [key]: part[key], ...efficiency } };
}
