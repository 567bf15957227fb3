import { describe, expect, it } from "vitest";
import type { Loads } from "../../api/client";
import { at, type DesignDocument } from "../../document/document";
import { described, type Phase, stretched, stretchedTo, typedTime, widthOf } from "./blocks";

const runs: Phase = { do: "runs", count: 4, seconds: 30, lasts: 120 };
const rest: Phase = { do: "rest", count: 1, seconds: 600, lasts: 600 };
const loads = { day: [runs, rest], heats: 3, day_assumed: true } as Loads;
const design = { drive: {} } as unknown as DesignDocument;

describe("blocks of a day", () => {
  it("are wider the longer they last, and follow the hand", () => {
    expect(widthOf(600)).toBeGreaterThan(widthOf(4));
    const wider = stretched(4, 50);
    expect(Math.abs(widthOf(wider) - widthOf(4) - 50)).toBeLessThan(1);
    expect(stretched(4, -500)).toBe(1);
    expect(stretched(3600, 5000)).toBe(72_000);
  });

  it("are told in seconds, then in whole minutes", () => {
    expect([4, 90, 600].map(typedTime)).toEqual(["4 s", "90 s", "10 min"]);
    expect(stretched(600, 20) % 60).toBe(0);
  });

  it("of runs become more runs, of anything else more time", () => {
    expect(stretchedTo(0, runs, 200)).toEqual(["loads.day[0].count", 7]);
    expect(stretchedTo(0, runs, 1)).toEqual(["loads.day[0].count", 1]);
    expect(stretchedTo(1, rest, 480)).toEqual(["loads.day[1].for", "8 min"]);
  });

  it("of a usual day are taken over, those described stay as they are", () => {
    const own = described(design, loads);
    expect(at(own, "loads")).toEqual({
      day: [
        { do: "runs", count: 4, every: "30 s" },
        { do: "rest", for: "10 min" },
      ],
      heats: 3,
    });
    expect(described(own, { ...loads, heats: 9 })).toBe(own);
  });
});
