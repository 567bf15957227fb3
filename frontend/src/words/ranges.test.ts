import { expect, test } from "vitest";
import { around, isUsable, parseCounts } from "./ranges";

const LIMITS = { least_teeth: 5, most_teeth: 1000, most_counts: 40 };

test("ranges and single counts, in order and once each", () => {
  expect(parseCounts("14-16, 20 15")).toEqual([14, 15, 16, 20]);
  expect(parseCounts("12–13")).toEqual([12, 13]);
  expect(parseCounts("")).toEqual([]);
});

test("what is no count is not guessed at", () => {
  expect(parseCounts("12 x 14")).toEqual([]);
  expect(parseCounts("-3")).toEqual([]);
});

test("a table stays of a size that can be read", () => {
  expect(isUsable(parseCounts("5-44"), LIMITS)).toBe(true);
  expect(isUsable(parseCounts("5-45"), LIMITS)).toBe(false);
  expect(isUsable([4], LIMITS)).toBe(false);
  expect(isUsable([], LIMITS)).toBe(false);
  expect(around(15, 4, LIMITS)).toBe("11-19");
  expect(around(6, 4, LIMITS)).toBe("5-10");
});
