import { describe, expect, it } from "vitest";
import type { Vocabulary } from "../../api/client";
import { change, completed, digits, makeUnits, ratioText, show } from "./units";

const unit = (symbol: string, factor: number, offset = 0) => ({ symbol, typed: symbol, factor, offset });
const vocabulary: Vocabulary = {
  dimensions: [
    { name: "speed", metric: unit("m/s", 1), inch: unit("mph", 0.44704), example: "5 m/s" },
    { name: "temperature", metric: unit("°C", 1, 273.15), inch: unit("°F", 5 / 9, 255.372222), example: "" },
    { name: "ratio", metric: unit("", 1), inch: unit("", 1), example: "" },
  ],
  measures: [],
  aids: [],
  parts: [],
  stages: [],
  ratings: [],
  runs: [],
  shapes: [],
  typical: [],
  limits: { least_teeth: 5, most_teeth: 1000, most_counts: 40 },
};
const metric = makeUnits(vocabulary, "metric", true);
const inch = makeUnits(vocabulary, "inch", false);

describe("digits", () => {
  it("shows three that count", () => {
    expect([9.1834, 104.21, 0.0333, 10476.2, 0, -0.6071].map(digits)).toEqual([
      "9.18",
      "104",
      "0.0333",
      "10\u202f476",
      "0",
      "−0.607",
    ]);
    expect(digits(4.2e-5)).toBe("4.20e−5");
  });
});

describe("show", () => {
  it("converts for display", () => {
    expect(show(metric, "speed", 8.9408)).toEqual({ number: "8.94", unit: "m/s" });
    expect(show(inch, "speed", 8.9408)).toEqual({ number: "20.0", unit: "mph" });
    expect(show(metric, "temperature", 291.15).number).toBe("18.0");
    expect(show(metric, "speed", null)).toEqual({ number: "–", unit: "" });
  });
});

describe("change", () => {
  it("is signed, and a difference has no offset", () => {
    expect(change(metric, "speed", 9, 8)).toBe("+1.00");
    expect(change(metric, "speed", 8, 9)).toBe("−1.00");
    expect(change(metric, "speed", 8, 8)).toBe("±0");
    expect(change(metric, "speed", 8, null)).toBe("");
    expect(change(metric, "temperature", 300, 290)).toBe("+10.0");
  });
});

describe("ratioText", () => {
  it("reads either way", () => {
    expect(ratioText(metric, 7.4667)).toBe("7.47 : 1");
    expect(ratioText(inch, 8)).toBe("0.125 : 1");
  });
});

describe("completed", () => {
  it("adds the unit on display to a bare number only", () => {
    expect(completed(inch, "speed", "12")).toBe("12 mph");
    expect(completed(inch, "speed", "3 1/4")).toBe("3 1/4 mph");
    expect(completed(inch, "speed", " 5 m/s ")).toBe("5 m/s");
    expect(completed(metric, "ratio", "0.8")).toBe("0.8");
    expect(completed(metric, "speed", "fast")).toBe("fast");
  });
});
