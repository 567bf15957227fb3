/** Where things lie in the charts of runs. Pure. */

export interface Frame {
  width: number;
  height: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
}

export const FRAME = { left: 46, right: 14, top: 12, bottom: 24 } as const;

export type Scale = (value: number) => number;

export interface Scales {
  x: Scale;
  y: Scale;
  spanX: [number, number];
  spanY: [number, number];
}

/** The least and the largest of some values, with a share of room on both sides. */
export function span(values: number[], room = 0.06): [number, number] {
  const known = values.filter(Number.isFinite);
  if (known.length === 0) return [0, 1];
  const [low, high] = [Math.min(...known), Math.max(...known)];
  const wide = high - low || Math.abs(high) || 1;
  return [low - room * wide, high + room * wide];
}

export function scales(frame: Frame, spanX: [number, number], spanY: [number, number]): Scales {
  const { width, height, left, right, top, bottom } = frame;
  return {
    x: (value) => left + ((width - left - right) * (value - spanX[0])) / (spanX[1] - spanX[0]),
    y: (value) => height - bottom - ((height - top - bottom) * (value - spanY[0])) / (spanY[1] - spanY[0]),
    spanX,
    spanY,
  };
}

/** A line through points, broken where one has no value. */
export function line(xs: number[], ys: (number | null)[], at: Scales): string {
  let path = "";
  let pen = "M";
  xs.forEach((x, k) => {
    const y = ys[k];
    if (y == null) pen = "M";
    else {
      path += `${pen}${at.x(x).toFixed(1)} ${at.y(y).toFixed(1)}`;
      pen = "L";
    }
  });
  return path;
}

/** The area between two lines. */
export function area(xs: number[], low: (number | null)[], high: (number | null)[], at: Scales): string {
  const known = xs.flatMap((x, k) =>
    low[k] == null || high[k] == null ? [] : [[x, low[k], high[k]] as const],
  );
  if (known.length < 2) return "";
  const up = known.map(([x, , y]) => `${at.x(x).toFixed(1)} ${at.y(y as number).toFixed(1)}`);
  const back = [...known].reverse().map(([x, y]) => `${at.x(x).toFixed(1)} ${at.y(y as number).toFixed(1)}`);
  return `M${up.join("L")}L${back.join("L")}Z`;
}

export interface Label {
  x: number;
  y: number;
  text: string;
}

const [CHARACTER, HIGH] = [6.6, 14];

/** Where names of points stand: beside their points, off each other and off all points. */
export function placedLabels(points: Label[], frame: Frame): Label[] {
  const taken: [number, number, number, number][] = points.map(({ x, y }) => [x - 6, y - 6, x + 6, y + 6]);
  return points.map(({ x, y, text }) => {
    const wide = CHARACTER * text.length;
    const spots = [
      [x + 8, y - 8],
      [x + 8, y + 18],
      [x - 8 - wide, y - 8],
      [x - 8 - wide, y + 18],
      [x + 8, y - 24],
      [x + 8, y + 34],
    ] as [number, number][];
    const free = ([left, base]: [number, number]) =>
      left >= frame.left &&
      left + wide <= frame.width &&
      taken.every(([l, t, r, b]) => left > r || left + wide < l || base - HIGH > b || base < t);
    const [left, base] = spots.find(free) ?? (spots[0] as [number, number]);
    taken.push([left, base - HIGH, left + wide, base]);
    return { x: left, y: base, text };
  });
}
