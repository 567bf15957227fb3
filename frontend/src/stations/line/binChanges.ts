/** What of a part of the bin goes where in a design. Pure. */
import type { PartDocument } from "../../parts/bin";

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

/** A bought box or a planetary stack as the stage at a path. */
export function boxChanges(path: string, part: PartDocument): Changes {
  const efficiency = part.efficiency === undefined ? {} : { efficiency: part.efficiency };
  const stage = part.reductions
    ? { kind: "planetary", reductions: part.reductions }
    : { kind: "gearbox", ratio: part.ratio };
  return { [path]: { ...stage, ...efficiency } };
}

/** A box of several speeds stands in the trunk alone, and is not taken where one ratio is wanted. */
export function isOneRatio(part: PartDocument): boolean {
  return part.ratios === undefined;
}
