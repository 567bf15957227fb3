/** How an exercise went, and what comes after it. Pure. */
import type { Idea, Went } from "../../api/client";

interface Course {
  /** Answers that were not right. */
  misses: number;
  hints: number;
  /** The answer was shown before it was found. */
  shown: boolean;
}

export const MOST_MISSES = 3;

export function wentBy({ misses, hints, shown }: Course): Went {
  if (shown || misses >= MOST_MISSES) return "missed";
  return misses + hints > 0 ? "with help" : "well";
}

/** Of somebody of whom nothing is kept: on to the next idea once one went well, else the same idea again. */
export function following(ideas: Idea[], current: string, went: Went | null): string {
  const place = ideas.findIndex((idea) => idea.idea === current);
  const next = went === "well" ? (place + 1) % ideas.length : Math.max(place, 0);
  return ideas[next]?.idea ?? current;
}

export const newSeed = () => Math.floor(Math.random() * 1e9);

/** One of an idea's kinds, another than the last where there is another. */
export function anotherKind(kinds: string[], last: string): string {
  const others = kinds.filter((kind) => kind !== last);
  const from = others.length > 0 ? others : kinds;
  return from[Math.floor(Math.random() * from.length)] ?? last;
}
