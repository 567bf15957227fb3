/**
 * What is said of mounting goes along when stages move: its paths are those of stages, which are told by being the
 * same objects before and after. Pure.
 */

import { at, type DesignDocument } from "./document";
import type { Mounting } from "./mounting";

const BASE = /^(?:drive\.(?:branches\[\d+\]\.)?stages\[\d+\]|drive\.branches\[\d+\]\.source)/;

/** The changed document with its mounting about the same stages as before; of those that are gone nothing is kept. */
export function carried(before: DesignDocument, after: DesignDocument): DesignDocument {
  const fit = after.fit as Mounting | undefined;
  if (!fit || before.drive === after.drive) return after;
  const now = paths(after);
  const taken = new Set(now.values());
  const old = new Set(paths(before).values());
  const moved = (path: string): string | null => {
    const base = BASE.exec(path)?.[0];
    if (!base) return path;
    const there = now.get(at(before, base));
    if (there) return there + path.slice(base.length);
    // Another kind in its place is still that place; a stage that moved up into it is not.
    const replaced = taken.has(base) && old.size === taken.size;
    return replaced ? path : null;
  };
  return { ...after, fit: following(fit, moved) };
}

function following(fit: Mounting, moved: (path: string) => string | null): Mounting {
  const shafts = fit.shafts?.flatMap((entry) => {
    const shaft = moved(entry.shaft);
    if (!shaft) return [];
    const items = entry.stack?.items?.map((item) =>
      item.wheel ? { ...item, wheel: moved(item.wheel) ?? undefined } : item,
    );
    return [{ ...entry, shaft, ...(items ? { stack: { ...entry.stack, items } } : {}) }];
  });
  const ofStage = <T extends { stage: string }>(entry: T): T[] => {
    const stage = moved(entry.stage);
    return stage ? [{ ...entry, stage }] : [];
  };
  const loops = fit.loops?.flatMap(ofStage);
  const behind = fit.behind?.flatMap(ofStage);
  const kept = { shafts, loops, behind };
  return { ...fit, ...Object.fromEntries(Object.entries(kept).filter(([, entries]) => entries)) } as Mounting;
}

/** Where each source and stage stands. */
function paths(document: DesignDocument): Map<unknown, string> {
  const found = new Map<unknown, string>();
  const put = (thing: unknown, path: string) => {
    if (!found.has(thing)) found.set(thing, path);
  };
  document.drive.branches.forEach((branch, b) => {
    put(branch.source, `drive.branches[${b}].source`);
    branch.stages?.forEach((stage, s) => {
      put(stage, `drive.branches[${b}].stages[${s}]`);
    });
  });
  document.drive.stages?.forEach((stage, s) => {
    put(stage, `drive.stages[${s}]`);
  });
  return found;
}
