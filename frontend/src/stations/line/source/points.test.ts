import { expect, test } from "vitest";
import { parsePoints, pointsText } from "./points";

test("points are read as typed, with units or without, with spaces, commas or tabs between them", () => {
  const wanted = [["1800 rpm", "6.1 N*m"]];
  for (const text of [
    "1800 rpm   6.1 N*m",
    "1800 6.1",
    "1800\t6.1",
    "1800rpm; 6.1 N*m".replace("1800rpm", "1800 rpm"),
  ]) {
    expect(parsePoints(text, "rpm", "N*m")).toEqual(wanted);
  }
  expect(parsePoints("1800 rpm 6\n\n2600 rpm 7\n", "rpm", "N*m")).toHaveLength(2);
});

test("what is no pair is kept as it was typed", () => {
  expect(parsePoints("fast", "rpm", "N*m")).toEqual([["fast"]]);
});

test("text of points comes back as the same points", () => {
  const points: [unknown, unknown][] = [
    ["1800 rpm", "6 N*m"],
    ["3900 rpm", "0 N*m"],
  ];
  expect(parsePoints(pointsText(points), "rpm", "N*m")).toEqual(points);
});
