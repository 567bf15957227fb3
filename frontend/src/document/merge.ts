/** Two people's changes to one document brought together. Pure. */
import { type Difference, differences } from "./document";

export interface Merged<T> {
  /** With both people's changes; where both changed the same value, with the preferred one's. */
  document: T;
  /** Values that both changed, each to something else. */
  collisions: Difference[];
}

type Side = "mine" | "theirs";

/** Bring together what two people made of `base`. */
export function merge<T>(base: T, mine: T, theirs: T, prefer: Side = "mine"): Merged<T> {
  const collisions: Difference[] = [];
  const document = together(base, mine, theirs, "", prefer, collisions) as T;
  return { document, collisions };
}

function together(
  base: unknown,
  mine: unknown,
  theirs: unknown,
  path: string,
  prefer: Side,
  collisions: Difference[],
): unknown {
  if (same(mine, theirs) || same(theirs, base)) return mine;
  if (same(mine, base)) return theirs;
  const sides = [base, mine, theirs];
  if (sides.every(isList) && new Set(sides.map((side) => side.length)).size === 1)
    return list(mine).map((_, i) =>
      together(list(base)[i], list(mine)[i], list(theirs)[i], `${path}[${i}]`, prefer, collisions),
    );
  if (sides.every(isParts)) return partwise(sides as Parts[], path, prefer, collisions);
  collisions.push(...differences(mine, theirs, path));
  return prefer === "mine" ? mine : theirs;
}

type Parts = Record<string, unknown>;

function partwise(
  [base, mine, theirs]: Parts[],
  path: string,
  prefer: Side,
  collisions: Difference[],
): Parts {
  const made: Parts = {};
  for (const key of new Set([...Object.keys(theirs ?? {}), ...Object.keys(mine ?? {})])) {
    const inner = path ? `${path}.${key}` : key;
    const value = together(base?.[key], mine?.[key], theirs?.[key], inner, prefer, collisions);
    if (value !== undefined) made[key] = value;
  }
  return made;
}

const same = (one: unknown, other: unknown) => differences(one, other).length === 0;
const isList = (value: unknown): value is unknown[] => Array.isArray(value);
const list = (value: unknown) => value as unknown[];

/** An object with parts of its own; a quantity with its origin is one value. */
function isParts(value: unknown): value is Parts {
  return value !== null && typeof value === "object" && !isList(value) && !("value" in value);
}
