import { describe, expect, it } from "vitest";
import type { Wheel } from "../api/client";
import { frameFor, framesFor, loopPath, spread, toothPath, turningArrow } from "./paths";

const ROOM = { width: 200, height: 100, left: 10, right: 10, top: 10, bottom: 10 };

describe("frameFor", () => {
  it("fits everything, upright and in the middle", () => {
    const frame = frameFor([{ left: -1, right: 1, bottom: -1, top: 1 }], ROOM);
    expect(frame.scale).toBe(40);
    expect([frame.x(0), frame.y(0), frame.y(1)]).toEqual([100, 50, 10]);
  });

  it("takes the larger of two drawings", () => {
    const one = { left: 0, right: 1, bottom: 0, top: 1 };
    expect(frameFor([one, { ...one, right: 4 }], ROOM).scale).toBe(45);
  });
});

describe("framesFor", () => {
  const row = { left: 0, right: 1, bottom: -0.5, top: 0.5 };
  it("stands rows below each other at one scale", () => {
    const frames = framesFor([row, { ...row, right: 4 }], [], ROOM);
    expect(frames.map((f) => f.scale)).toEqual([45, 45]);
    expect(frames.map((f) => f.y(0))).toEqual([50, 150]);
  });

  it("makes room for the mark", () => {
    expect(framesFor([row], [{ ...row, right: 9 }], ROOM)[0]?.scale).toBe(20);
  });
});

describe("toothPath", () => {
  it("repeats the outline of a tooth around the wheel, from its phase on", () => {
    const frame = { scale: 10, x: (m: number) => 10 * m, y: (m: number) => -10 * m };
    const wheel = { x: 0, y: 0, teeth: 4, phase: Math.PI / 2, tooth: { radii: [1], angles: [0] } };
    expect(toothPath(wheel as unknown as Wheel, frame)).toBe(
      "M 0.0 -10.0 L -10.0 -0.0 L -0.0 10.0 L 10.0 0.0 Z",
    );
  });
});

describe("loopPath", () => {
  it("is one closed path of runs and arcs", () => {
    const frame = { scale: 10, x: (m: number) => 10 * m, y: (m: number) => -10 * m };
    const line = { radius: 0, wrap: 0 };
    const segments = [
      { x1: 0, y1: 1, x2: 5, y2: 1, ...line },
      { x1: 5, y1: 1, x2: 5, y2: -1, radius: 1, wrap: Math.PI * 1.1 },
      { x1: 5, y1: -1, x2: 0, y2: -1, ...line },
      { x1: 0, y1: -1, x2: 0, y2: 1, radius: 1, wrap: Math.PI * 0.9 },
    ];
    expect(loopPath({ segments }, frame)).toBe(
      "M 0.00 -10.00 L 50.00 -10.00 A 10.00 10.00 0 1 1 50.00 10.00 L 0.00 10.00 A 10.00 10.00 0 0 1 0.00 -10.00 Z",
    );
  });
});

describe("spread", () => {
  it("keeps the order and the gap, inside the room", () => {
    expect(spread([50, 52, 54], 20, 0, 100)).toEqual([50, 70, 90]);
    expect(spread([90, 95, 99], 20, 0, 100)).toEqual([60, 80, 100]);
    expect(spread([10, 80], 20, 0, 100)).toEqual([10, 80]);
  });
});

describe("turningArrow", () => {
  it("points right over the top for clockwise", () => {
    const numbers = (text: string) => (text.match(/-?[\d.]+/g) ?? []).map(Number);
    const [right, left] = [turningArrow(0, 0, 50, 1), turningArrow(0, 0, 50, -1)];
    expect(numbers(right.heads)[0]).toBeGreaterThan(0);
    expect(numbers(left.heads)[0]).toBeLessThan(0);
    expect(right.arc).toContain(" 0 0 1 ");
  });

  it("has a head at either end where the sense is open", () => {
    expect(turningArrow(0, 0, 50, 1, false).heads.match(/Z/g)).toHaveLength(2);
  });
});
