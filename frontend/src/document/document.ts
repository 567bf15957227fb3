/** The design document as it is stored and edited: what was typed, unread. Reading it is the core's work. */

export type Typed = string | number | { value: string | number; origin?: string; note?: string };

export interface Stage {
  kind: string;
  [key: string]: unknown;
}

export interface Target {
  measure: string;
  at_least?: Typed;
  at_most?: Typed;
  between?: [Typed, Typed];
  distance?: Typed;
  speed?: Typed;
  time?: Typed;
}

export interface Branch {
  count?: number;
  source: Record<string, unknown>;
  controller?: Record<string, unknown>;
  clutch?: Record<string, unknown>;
  stages?: Stage[];
}

export interface DesignDocument {
  format: string;
  version: number;
  name?: string;
  notes?: string;
  vehicle: Record<string, Typed | undefined>;
  conditions?: Record<string, Typed | undefined>;
  drive: {
    units?: number;
    supply?: Record<string, unknown> & { kind: string };
    branches: Branch[];
    stages?: Stage[];
  };
  run?: Record<string, Typed | undefined>;
  targets?: Target[];
  /** How it is mounted: see ./mounting. */
  fit?: Record<string, unknown>;
}

type Key = string | number;

export function keys(path: string): Key[] {
  return [...path.matchAll(/[^.[\]]+|\[(\d+)\]/g)].map((m) => (m[1] === undefined ? m[0] : Number(m[1])));
}

/** A path in words: "branch 1 › stage 2 › driven teeth". */
export function spoken(path: string): string {
  const words: string[] = [];
  for (const key of keys(path)) {
    if (typeof key === "number") words.push(`${words.pop()?.replace(/(?<=ch)es$|s$/, "")} ${key + 1}`);
    else if (key !== "drive") words.push(key.replaceAll("_", " "));
  }
  return words.join(" › ");
}

export function at(document: unknown, path: string): unknown {
  let place: unknown = document;
  for (const key of keys(path)) {
    if (place === null || typeof place !== "object") return undefined;
    place = (place as Record<Key, unknown>)[key];
  }
  return place;
}

/** A document with another value at a path; undefined takes the key, or the list entry, away. */
export function withValue<T>(document: T, path: string, value: unknown): T {
  return put(document, keys(path), value) as T;
}

/** A document with other values at several paths. */
export function withValues<T>(document: T, values: Record<string, unknown>): T {
  return Object.entries(values).reduce((made, [path, value]) => withValue(made, path, value), document);
}

function put(place: unknown, [key, ...rest]: Key[], value: unknown): unknown {
  if (key === undefined) return value;
  if (Array.isArray(place) || (place === undefined && typeof key === "number")) {
    const list = [...((place as unknown[]) ?? [])];
    if (rest.length === 0 && value === undefined) list.splice(key as number, 1);
    else list[key as number] = put(list[key as number], rest, value);
    return list;
  }
  const object = { ...((place as Record<Key, unknown>) ?? {}) };
  const inner = put(object[key], rest, value);
  if (inner === undefined) delete object[key];
  else object[key] = inner;
  return object;
}

export interface Difference {
  path: string;
  mine: string;
  theirs: string;
}

/** Every value in which two documents differ, by path. */
export function differences(mine: unknown, theirs: unknown, path = ""): Difference[] {
  if (Object.is(mine, theirs)) return [];
  const both = [mine, theirs];
  if (both.every((side) => side !== null && typeof side === "object")) {
    const names = new Set(both.flatMap((side) => Object.keys(side as object)));
    return [...names].flatMap((name) => {
      const inner = Array.isArray(mine) ? `${path}[${name}]` : path ? `${path}.${name}` : name;
      return differences(
        (mine as Record<string, unknown>)[name],
        (theirs as Record<string, unknown>)[name],
        inner,
      );
    });
  }
  return [{ path, mine: shown(mine), theirs: shown(theirs) }];
}

function shown(value: unknown): string {
  return value === undefined ? "nothing" : typeof value === "object" ? JSON.stringify(value) : String(value);
}
