import { expect, test } from "vitest";
import { GRID, INCH, UNITS } from "../../../fixtures";
import { pairsCsv } from "./Pairs";

const lines = (units = UNITS) => pairsCsv(GRID, units).split("\r\n");

test("one line a pair, with heads in the units on display", () => {
  expect(lines()).toHaveLength(5);
  expect(lines()[0]).toContain('"top speed (m/s)"');
  expect(lines()[4]).toMatch(/^15,56,7\.46667,52\.5\d+,9\.\d+,\d\.\d+,(holds|tight|misses)$/);
  expect(lines(INCH)[0]).toContain('"top speed (mph)"');
  expect(lines(INCH)[4]).toMatch(/^15,56,7\.46667,2\.07\d+,/);
});

test("a pair that cannot be leaves its figures out", () => {
  const empty = { ratio: null, per_turn: null, top_speed: null, time: null, standing: "unknown" as const };
  const grid = { ...GRID, cells: [[empty, empty], ...GRID.cells.slice(1)] };
  expect(pairsCsv(grid, UNITS).split("\r\n")[1]).toBe("14,48,,,,,unknown");
});
