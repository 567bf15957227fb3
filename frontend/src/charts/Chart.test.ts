import { describe, expect, it } from "vitest";
import { labelPlace, niceTop, rows, ticks } from "./Chart";

describe("ticks", () => {
  it("are round", () => {
    expect(ticks(9.6, 6)).toEqual([0, 2, 4, 6, 8]);
    expect(ticks(0.3, 6)).toEqual([0, 0.05, 0.1, 0.15, 0.2, 0.25, 0.3]);
    expect(niceTop(125)).toBe(150);
  });
});

describe("rows", () => {
  it("join series by x, each with its own points", () => {
    const base = { name: "", colour: "" };
    const table = rows([
      {
        key: "a",
        ...base,
        points: [
          [0, 1],
          [2, 3],
        ],
      },
      {
        key: "b",
        ...base,
        points: [
          [1, 5],
          [2, 6],
        ],
      },
    ]);
    expect(table).toEqual([
      { x: 0, a: 1 },
      { x: 1, b: 5 },
      { x: 2, a: 3, b: 6 },
    ]);
  });
});

describe("labelPlace", () => {
  const line = (labelAt: number) => ({
    key: "a",
    name: "",
    colour: "",
    labelAt,
    points: [
      [0, 0],
      [4, 8],
    ] as [number, number][],
  });

  it("lies on the line, inside the chart", () => {
    expect(labelPlace(line(0.5), 4, 10)).toEqual([2, 4]);
    expect(labelPlace(line(0.9), 4, 5)).toEqual([0, 0]);
    expect(labelPlace({ ...line(0), labelAt: undefined }, 4, 10)).toBeNull();
  });
});
