import { expect, test } from "vitest";
import { openLoop } from "./tangents";

const numbers = (path: string) => (path.match(/-?\d+(\.\d+)?/g) ?? []).map(Number);

test("equal circles have straight runs across their tops and bottoms", () => {
  expect(openLoop({ x: 0, y: 0, r: 10 }, { x: 50, y: 0, r: 10 })).toBe(
    "M 0.0 -10.0 L 50.0 -10.0 A 10.0 10.0 0 0 1 50.0 10.0 L 0.0 10.0 A 10.0 10.0 0 0 1 0.0 -10.0 Z",
  );
});

test("the runs are tangents of both circles, whatever their sizes and places", () => {
  const one = { x: 12, y: -5, r: 8 };
  const other = { x: 70, y: 31, r: 26 };
  const [x1 = 0, y1 = 0, x2 = 0, y2 = 0] = numbers(openLoop(one, other));
  const along = [x2 - x1, y2 - y1] as const;
  for (const [circle, x, y] of [
    [one, x1, y1],
    [other, x2, y2],
  ] as const) {
    expect(Math.hypot(x - circle.x, y - circle.y)).toBeCloseTo(circle.r, 0);
    expect(
      (along[0] * (x - circle.x) + along[1] * (y - circle.y)) / (circle.r * Math.hypot(...along)),
    ).toBeCloseTo(0, 1);
  }
});

test("the larger circle has the larger arc", () => {
  expect(openLoop({ x: 0, y: 0, r: 5 }, { x: 60, y: 0, r: 20 })).toContain("A 20.0 20.0 0 1 1");
});

test("there is no loop where one circle swallows the other", () => {
  expect(openLoop({ x: 0, y: 0, r: 5 }, { x: 2, y: 0, r: 50 })).toBe("");
});
