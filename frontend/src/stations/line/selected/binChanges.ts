/** What of a part of the bin goes where in a design. Pure. */
import type { PartDocument } from "../../../document/bin/bin";
import { type Kinds, ratioField, type StageKind } from "../../../words/kinds";

type Changes = Record<string, unknown>;

/** A motor or engine with its controller or clutch; the name goes with it. */
export function sourceChanges(branch: string, part: PartDocument): Changes {
  const told = part.source as Record<string, unknown>;
  const engine = part.kind === "engine";
  // How warm it gets depends on what it weighs, which the bin knows as it does of any part.
  const source = part.mass === undefined ? told : { mass: part.mass, ...told };
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
  const made: Record<string, unknown> = { kind: kind.kind, [key]: part[key] };
  for (const { part: from, key: said, to } of kind.brings)
    if (from === part.kind && part[said] !== undefined) made[to] = part[said];
  return { [path]: made };
}

/** What a wheel of the bin says of a stage besides its size; what the wheel before it said goes. */
export function wheelChanges(
  kind: StageKind | undefined,
  stage: Record<string, unknown>,
  path: string,
  member: string,
  part: PartDocument | undefined,
): Changes {
  const changes: Changes = {};
  for (const { part: from, key, to, among = [], keeps } of kind?.brings ?? []) {
    const at = to.replace("{member}", member);
    if (from !== kind?.part || (keeps && stage[at] !== undefined)) continue;
    const value = part?.[key];
    changes[`${path}.${at}`] = among.length === 0 || among.includes(String(value)) ? value : undefined;
  }
  return changes;
}
