/** Tooth counts as typed: "12-18 20 24". Pure. */
import type { Vocabulary } from "../api/client";

type Limits = Vocabulary["limits"];

/** The counts in order, without doubles; empty where something is no count, or they are far too many. */
export function parseCounts(text: string): number[] {
  const counts = new Set<number>();
  for (const part of text.split(/[\s,;]+/).filter(Boolean)) {
    const match = /^(\d{1,4})(?:[-–](\d{1,4}))?$/.exec(part);
    if (!match) return [];
    const [from, to] = [Number(match[1]), Number(match[2] ?? match[1])];
    for (let count = from; count <= to; count++) counts.add(count);
  }
  return [...counts].sort((a, b) => a - b);
}

export function isUsable(counts: number[], limits: Limits): boolean {
  const [first = 0, last = 0] = [counts[0], counts.at(-1)];
  const few = counts.length > 0 && counts.length <= limits.most_counts;
  return few && first >= limits.least_teeth && last <= limits.most_teeth;
}

/** A few sizes either way of the present one. */
export function around(count: number, by: number, limits: Limits): string {
  return `${Math.max(limits.least_teeth, count - by)}-${count + by}`;
}
