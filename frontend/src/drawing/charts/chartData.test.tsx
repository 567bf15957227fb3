import { describe, expect, it } from "vitest";
import type { Live } from "../../api/client";
import { INCH, PLAIN, UNITS } from "../../fixtures";
import { currentData, forceData, runData } from "./chartData";

const unmarked: Live = { ...PLAIN, mark: null };
const last = (points: [number, number][]) => points.at(-1) ?? [Number.NaN, Number.NaN];

describe("force over speed", () => {
  const data = forceData(PLAIN, UNITS);

  it("has a line for each gear, what stands against it, and the mark", () => {
    expect(data.series.map((s) => s.key)).toEqual(["resistance", "grip", "drive 0", "mark 0"]);
    expect(forceData(unmarked, UNITS).series.map((s) => s.name)).toEqual(["resistance", "grip", "drive"]);
  });

  it("ends where nothing drives any more, inside its axis", () => {
    const [speed, force] = last(data.series[2]?.points ?? []);
    expect(speed).toBeCloseTo(PLAIN.no_load_speed, 6);
    expect(Math.abs(force)).toBeLessThan(1e-6);
    expect(data.x.max).toBeGreaterThan(speed);
  });

  it("notches its targets and shades the current limit", () => {
    const notches = data.notches.filter((n) => n.text === undefined);
    expect(notches).toContainEqual({ axis: "y", value: 110 });
    expect(notches).toContainEqual({ axis: "x", value: 8 });
    expect(data.bands).toEqual([
      { from: 0, to: PLAIN.view.force.gears[0]?.limited_to, text: "current limit" },
    ]);
  });

  it("is in the units on display", () => {
    const inch = forceData(PLAIN, INCH);
    expect(inch.x.unit).toBe("mph");
    expect(last(inch.series[2]?.points ?? [])[0]).toBeCloseTo(PLAIN.no_load_speed / 0.44704, 4);
    expect(inch.scale).toBeCloseTo(0.44704);
  });
});

describe("the run", () => {
  it("tells the time over the distance", () => {
    const data = runData({ ...PLAIN, gauges: PLAIN.gauges }, UNITS);
    expect(data?.series.map((s) => s.name)).toEqual(["distance", "speed", "mark"]);
    expect(data?.notches.find((n) => n.axis === "y")?.text).toMatch(/^25 m in [\d.]+ s$/);
  });

  it("is not there where it does not start", () => {
    const still: Live = { ...PLAIN, view: { ...PLAIN.view, run: null } };
    expect(runData(still, UNITS)).toBeNull();
    expect(currentData(still, UNITS)).toBeNull();
  });
});

describe("currents", () => {
  it("show one motor and the supply, with room for the target", () => {
    const bound = { ...PLAIN.gauges[0], measure: "peak_bus_current", target: 0, lower: null, upper: 400 };
    const data = currentData({ ...unmarked, gauges: [bound as Live["gauges"][number]] }, UNITS);
    expect(data?.series.map((s) => s.name)).toEqual(["one motor", "supply"]);
    expect(data?.notches).toEqual([{ axis: "y", value: 400 }]);
    expect(data?.y.max).toBeGreaterThan(400);
  });

  it("are not there for engines alone", () => {
    expect(currentData({ ...PLAIN, supply: null }, UNITS)).toBeNull();
  });
});
