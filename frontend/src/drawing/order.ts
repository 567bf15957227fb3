/** What can be chosen in a drawing, in the order power meets it: each branch from its source on, then the trunk. Pure. */
import type { Box, LineDrawing, Row, Source, Wheel } from "../api/client";
import type { Selected } from "../document/selected";

export type Stop =
  | { kind: "source"; row: number; at: Selected; source: Source }
  | { kind: "wheel"; row: number; at: Selected; wheel: Wheel }
  | { kind: "box"; row: number; at: Selected; box: Box }
  | { kind: "road"; row: number; at: Selected; road: NonNullable<Row["road_wheel"]> };

/** The wheel on the ground as it is chosen. */
export const ROAD_WHEEL: Selected = { path: "vehicle", member: "wheel" };

export function stops(line: LineDrawing): Stop[] {
  const found = line.rows.flatMap((row, i): Stop[] => [
    ...row.sources.map(
      (source): Stop => ({ kind: "source", row: i, at: { path: source.path, member: "motor" }, source }),
    ),
    ...row.wheels.map(
      (wheel): Stop => ({ kind: "wheel", row: i, at: { path: wheel.path, member: wheel.member }, wheel }),
    ),
    ...row.boxes.map((box): Stop => ({ kind: "box", row: i, at: { path: box.path, member: "box" }, box })),
    ...(row.road_wheel ? [{ kind: "road" as const, row: i, at: ROAD_WHEEL, road: row.road_wheel }] : []),
  ]);
  // The sort is stable, so the members of a stage stay in the order in which they are drawn.
  return found.sort((a, b) => place(a.at.path) - place(b.at.path));
}

const PATH = /^drive(?:\.branches\[(\d+)\])?(?:\.stages\[(\d+)\])?/;
const MOST = 100;

/** The place of a stage or source: branches count up, the trunk comes after all of them. */
function place(path: string): number {
  if (path === ROAD_WHEEL.path) return Number.POSITIVE_INFINITY;
  const [, branch, stage] = PATH.exec(path) ?? [];
  return (
    (branch === undefined ? MOST : Number(branch)) * MOST + (stage === undefined ? 0 : Number(stage) + 1)
  );
}
