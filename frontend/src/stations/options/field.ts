/** The field of options: which of two measures is better in which direction, and the edge of the best. Pure. */

export interface Spot {
  /** Which option it is. */
  index: number;
  x: number;
  y: number;
}

/** Options that no other one beats in both measures, from left to right; a direction of 0 counts as more is better. */
export function bestEdge(spots: Spot[], betterX: number, betterY: number): Spot[] {
  const [sx, sy] = [betterX || 1, betterY || 1];
  const ordered = [...spots].sort((a, b) => sx * (b.x - a.x) || sy * (b.y - a.y));
  const edge: Spot[] = [];
  let reached = Number.NEGATIVE_INFINITY;
  for (const spot of ordered) {
    if (sy * spot.y <= reached) continue;
    reached = sy * spot.y;
    edge.push(spot);
  }
  return edge.sort((a, b) => a.x - b.x);
}

/** Where the focus goes from a spot: along the edge, or to the nearest on that side where it is not on the edge. */
export function walk(spots: Spot[], edge: Spot[], from: number, by: 1 | -1): number {
  const place = edge.findIndex((spot) => spot.index === from);
  if (place >= 0) return edge[Math.min(edge.length - 1, Math.max(0, place + by))]?.index ?? from;
  const here = spots.find((spot) => spot.index === from);
  if (!here) return edge[0]?.index ?? from;
  const beyond = edge.filter((spot) => by * (spot.x - here.x) > 0);
  return (by === 1 ? beyond[0] : beyond.at(-1))?.index ?? from;
}

/** A span around what matters with as much again on either side, but no further than there is anything to see. */
export function spanAround(near: number[], all: number[]): [number, number] {
  const [low, high] = [Math.min(...near), Math.max(...near)];
  const room = high - low || Math.abs(high) || 1;
  const [least, most] = [Math.min(low, ...all), Math.max(high, ...all)];
  const edge = 0.08 * room;
  return [Math.max(low - room, least) - edge, Math.min(high + room, most) + edge];
}
