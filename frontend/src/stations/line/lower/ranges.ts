/** Tooth counts as typed: "12-18 20 24". Pure. */

const MOST = 40;

/** The counts in order, without doubles; empty where something is no count. */
export function parseCounts(text: string): number[] {
  const parts = text.split(/[\s,;]+/).filter(Boolean);
  const counts: number[] = [];
  for (const part of parts) {
    const found = /^(\d+)(?:[-–](\d+))?$/.exec(part);
    if (!found) return [];
    const [from, to] = [Number(found[1]), Number(found[2] ?? found[1])];
    for (let count = from; count <= to && counts.length <= MOST; count++) counts.push(count);
  }
  return [...new Set(counts)].sort((a, b) => a - b);
}

export function isUsable(counts: number[]): boolean {
  return counts.length > 0 && counts.length <= MOST && (counts[0] ?? 0) >= 5 && (counts.at(-1) ?? 0) <= 1000;
}

/** A few sizes either way of the present one. */
export function around(count: number, by: number): string {
  return `${Math.max(5, count - by)}-${count + by}`;
}
