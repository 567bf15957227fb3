import { describe, expect, it, test } from "vitest";
import {
  bandPath,
  csv,
  labelPlace,
  linePath,
  marked,
  niceTop,
  plotOf,
  readings,
  ticksThatFit,
  valueAt,
} from "./curves";

test("an axis ends at a round number above its largest value", () => {
  expect(niceTop(125)).toBe(150);
  expect(niceTop(0.3)).toBe(0.4);
});

test("marks of an axis do not run into each other", () => {
  expect(ticksThatFit(100, 190, String)).toEqual([0, 20, 40, 60, 80, 100]);
  expect(ticksThatFit(0.13, 190, (v) => v.toFixed(2))).toEqual([0, 0.05, 0.1]);
  expect(ticksThatFit(0.13, 10, (v) => v.toFixed(2))).toEqual([0, 0.1]);
});

test("a mark that the last one with its unit would run into has no words", () => {
  const at = (pixels: number) => (value: number) => value * pixels;
  expect(marked([0, 38, 40], "min", String, at(16))).toEqual(["0", "", "40 min"]);
  expect(marked([0, 20, 40], "min", String, at(16))).toEqual(["0", "20", "40 min"]);
});

describe("paths", () => {
  const plot = plotOf(160, 138, 10, 50);

  it("lie in a plot whose axes start at 0", () => {
    expect([plot.x(0), plot.x(10), plot.y(0), plot.y(50)]).toEqual([42, 142, 114, 14]);
    expect(
      linePath(plot, [
        [0, 0],
        [5, 25],
        [10, 50],
      ]),
    ).toBe("M42.0 114.0L92.0 64.0L142.0 14.0");
  });

  it("go along the low values and back along the high ones", () => {
    expect(
      bandPath(plot, [
        [0, 0, 25],
        [10, 25, 50],
      ]),
    ).toBe("M42.0 114.0L142.0 64.0L142.0 14.0L42.0 64.0Z");
  });

  it("of nothing are empty", () => {
    expect(linePath(plot, [])).toBe("");
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

describe("valueAt", () => {
  const points: [number, number][] = [
    [0, 10],
    [2, 20],
  ];
  it("is straight between points and nothing outside", () => {
    expect(valueAt(points, 0.5)).toBe(12.5);
    expect([valueAt(points, 0), valueAt(points, 2), valueAt(points, 2.1)]).toEqual([10, 20, null]);
  });
});

describe("tables", () => {
  const series = [
    {
      key: "a",
      name: "=force",
      colour: "",
      points: [
        [0, 1],
        [2, 3],
      ] as [number, number][],
    },
    {
      key: "b",
      name: 'gear "2"',
      colour: "",
      points: [
        [0, 5],
        [1, 6],
      ] as [number, number][],
    },
  ];
  it("read every line at the same places", () => {
    expect(readings(series, 2, 2)).toEqual([
      { x: 0, values: [1, 5] },
      { x: 1, values: [2, 6] },
      { x: 2, values: [3, null] },
    ]);
  });
  it("are text that no spreadsheet takes for a formula", () => {
    expect(csv("speed, m/s", series, 2, 2).split("\r\n")).toEqual([
      '"speed, m/s","\'=force","gear ""2"""',
      "0,1,5",
      "1,2,6",
      "2,3,",
    ]);
  });
});
