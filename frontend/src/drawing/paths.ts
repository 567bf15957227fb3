/** From the core's geometry (metres, y up) to what SVG wants (pixels, y down). Pure functions. */
import type { LineDrawing } from "../api/client";

export interface Frame {
  /** Pixels per metre. */
  scale: number;
  x: (metres: number) => number;
  y: (metres: number) => number;
}

export interface Room {
  width: number;
  height: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
}

type Extent = Pick<LineDrawing, "left" | "right" | "top" | "bottom">;

/** The largest scale at which every extent fits the room inside its margins, drawn in the middle. */
export function frameFor(extents: Extent[], room: Room): Frame {
  const left = Math.min(...extents.map((e) => e.left));
  const right = Math.max(...extents.map((e) => e.right));
  const bottom = Math.min(...extents.map((e) => e.bottom));
  const top = Math.max(...extents.map((e) => e.top));
  const wide = room.width - room.left - room.right;
  const high = room.height - room.top - room.bottom;
  const scale = Math.max(1e-9, Math.min(wide / (right - left), high / (top - bottom)));
  const x0 = room.left + (wide - scale * (right - left)) / 2 - scale * left;
  const y0 = room.top + (high - scale * (top - bottom)) / 2 + scale * top;
  return { scale, x: (m) => x0 + scale * m, y: (m) => y0 - scale * m };
}

type Loop = LineDrawing["loops"][number];

/** A belt or chain as one closed path. */
export function loopPath(loop: Pick<Loop, "segments">, frame: Frame): string {
  const [first] = loop.segments;
  if (!first) return "";
  const point = (x: number, y: number) => `${frame.x(x).toFixed(2)} ${frame.y(y).toFixed(2)}`;
  const parts = loop.segments.map((s) => {
    if (s.wrap === 0) return `L ${point(s.x2, s.y2)}`;
    const r = (s.radius * frame.scale).toFixed(2);
    return `A ${r} ${r} 0 ${Math.abs(s.wrap) > Math.PI ? 1 : 0} ${s.wrap > 0 ? 1 : 0} ${point(s.x2, s.y2)}`;
  });
  return `M ${point(first.x1, first.y1)} ${parts.join(" ")} Z`;
}

/** Places as near as may be to the wanted ones, in the same order, at least `gap` apart and inside the room. */
export function spread(wanted: number[], gap: number, low: number, high: number): number[] {
  const placed = wanted.map((place) => Math.min(Math.max(place, low), high));
  for (let i = 1; i < placed.length; i++) {
    placed[i] = Math.max(placed[i] as number, (placed[i - 1] as number) + gap);
  }
  let limit = high;
  for (let i = placed.length - 1; i >= 0; i--) {
    placed[i] = Math.min(placed[i] as number, limit);
    limit = (placed[i] as number) - gap;
  }
  return placed;
}

/** An arc over the top of a circle with its arrow head: clockwise for sense +1. */
export function turningArrow(
  cx: number,
  cy: number,
  radius: number,
  sense: number,
): { arc: string; head: string } {
  const half = Math.min(0.5, 26 / radius);
  const from = -Math.PI / 2 - sense * half;
  const to = -Math.PI / 2 + sense * half;
  const at = (angle: number, r: number): [number, number] => [
    cx + r * Math.cos(angle),
    cy + r * Math.sin(angle),
  ];
  const [x1, y1] = at(from, radius);
  const [x2, y2] = at(to, radius);
  const tip = at(to + (sense * 7) / radius, radius);
  const [ix, iy] = at(to, radius - 3.6);
  const [ox, oy] = at(to, radius + 3.6);
  const n = (v: number) => v.toFixed(1);
  return {
    arc: `M ${n(x1)} ${n(y1)} A ${n(radius)} ${n(radius)} 0 0 ${sense > 0 ? 1 : 0} ${n(x2)} ${n(y2)}`,
    head: `M ${n(tip[0])} ${n(tip[1])} L ${n(ix)} ${n(iy)} L ${n(ox)} ${n(oy)} Z`,
  };
}
