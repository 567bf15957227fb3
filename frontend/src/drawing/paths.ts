/** From the core's geometry (metres, y up) to what SVG wants (pixels, y down). Pure functions. */
import type { Box, Row, Wheel } from "../api/client";

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

type Extent = Pick<Row, "left" | "right" | "top" | "bottom">;

/** One frame a row, all at the scale at which the longest and the tallest still fit, one below the other. */
export function framesFor(rows: Extent[], marked: Extent[], room: Room): Frame[] {
  const extents = rows.map((row, i) => joined(row, marked[i] ?? row));
  const scale = Math.min(...extents.map((extent) => frameFor([extent], room).scale));
  return extents.map((extent, i) => {
    const frame = frameFor([extent], room, scale);
    return { ...frame, y: (m) => frame.y(m) + i * room.height };
  });
}

function joined(one: Extent, other: Extent): Extent {
  return {
    left: Math.min(one.left, other.left),
    right: Math.max(one.right, other.right),
    bottom: Math.min(one.bottom, other.bottom),
    top: Math.max(one.top, other.top),
  };
}

/** The largest scale at which every extent fits the room inside its margins, drawn in the middle. */
export function frameFor(extents: Extent[], room: Room, at?: number): Frame {
  const left = Math.min(...extents.map((e) => e.left));
  const right = Math.max(...extents.map((e) => e.right));
  const bottom = Math.min(...extents.map((e) => e.bottom));
  const top = Math.max(...extents.map((e) => e.top));
  const wide = room.width - room.left - room.right;
  const high = room.height - room.top - room.bottom;
  const scale = at ?? Math.max(1e-9, Math.min(wide / (right - left), high / (top - bottom)));
  const x0 = room.left + (wide - scale * (right - left)) / 2 - scale * left;
  const y0 = room.top + (high - scale * (top - bottom)) / 2 + scale * top;
  return { scale, x: (m) => x0 + scale * m, y: (m) => y0 - scale * m };
}

type Loop = Row["loops"][number];

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

/** The outline of a wheel, tooth by tooth. */
/** A closed outline that a box has inside: its points about its middle. */
export function outlinePath(part: Box["parts"][number], frame: Frame): string {
  const points = (part.radii ?? []).map((radius, i) => {
    const angle = part.angles?.[i] ?? 0;
    return `${frame.x(part.x + radius * Math.cos(angle))} ${frame.y(part.y + radius * Math.sin(angle))}`;
  });
  return `M ${points.join(" L ")} Z`;
}

export function toothPath(wheel: Wheel, frame: Frame): string {
  const { tooth, teeth } = wheel;
  if (!tooth || !teeth) return "";
  const cx = frame.x(wheel.x);
  const cy = frame.y(wheel.y);
  const radii = tooth.radii.map((r) => r * frame.scale);
  const points: string[] = [];
  for (let i = 0; i < teeth; i++) {
    const middle = wheel.phase + (2 * Math.PI * i) / teeth;
    for (let k = 0; k < radii.length; k++) {
      const angle = middle + (tooth.angles[k] as number);
      const r = radii[k] as number;
      points.push(`${(cx + r * Math.cos(angle)).toFixed(1)} ${(cy - r * Math.sin(angle)).toFixed(1)}`);
    }
  }
  return `M ${points.join(" L ")} Z`;
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

/** An arc over the top of a circle with its arrow head: clockwise for sense +1; heads at both ends where it is open. */
export function turningArrow(
  cx: number,
  cy: number,
  radius: number,
  sense: number,
  known = true,
): { arc: string; heads: string } {
  const half = Math.min(0.5, 26 / radius);
  const from = -Math.PI / 2 - sense * half;
  const to = -Math.PI / 2 + sense * half;
  const at = (angle: number, r: number) =>
    `${(cx + r * Math.cos(angle)).toFixed(1)} ${(cy + r * Math.sin(angle)).toFixed(1)}`;
  const head = (angle: number, towards: number) =>
    `M ${at(angle + (towards * 7) / radius, radius)} L ${at(angle, radius - 3.6)} L ${at(angle, radius + 3.6)} Z`;
  const r = radius.toFixed(1);
  return {
    arc: `M ${at(from, radius)} A ${r} ${r} 0 0 ${sense > 0 ? 1 : 0} ${at(to, radius)}`,
    heads: known ? head(to, sense) : `${head(to, sense)} ${head(from, -sense)}`,
  };
}
