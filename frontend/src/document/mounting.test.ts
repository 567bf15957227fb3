import { describe, expect, it } from "vitest";
import { KINDS } from "../fixtures/kinds";
import type { DesignDocument } from "./document";
import {
  arrowed,
  filled,
  helped,
  mountedAs,
  moved,
  placed,
  shaftOf,
  snapped,
  withLoop,
  withShaft,
} from "./mounting";

const PLATE = { hole_pitch: 0.012, across: 10, up: 4 };
const MOTOR = "drive.branches[0].source";
const DESIGN = {
  drive: { branches: [{ source: {} }], stages: [{ kind: "belt", belt_teeth: 84 }, { kind: "v_belt" }] },
} as unknown as DesignDocument;

describe("a shaft", () => {
  it("of which nothing was said stands freely without a plate, on holes with one", () => {
    expect(shaftOf(moved(DESIGN, MOTOR, { x: 0.0125, y: -0.001 }), MOTOR)).toEqual({
      shaft: MOTOR,
      mount: "free",
      at: ["12.5 mm", "-1 mm"],
    });
    const plated = { ...DESIGN, fit: { plate: {} } };
    expect(shaftOf(moved(plated, MOTOR, { x: 0, y: 0 }), MOTOR)?.mount).toBe("holes");
  });

  it("keeps what was said of it when it is moved", () => {
    const said = withShaft(DESIGN, MOTOR, { mount: "fixed", diameter: "8 mm" });
    const made = moved(said, MOTOR, { x: 0.1, y: 0.1 });
    expect(shaftOf(made, MOTOR)).toMatchObject({ mount: "fixed", diameter: "8 mm" });
    expect((made.fit as { shafts: unknown[] }).shafts).toHaveLength(1);
  });

  it("gets a slot around where it stands, and gives it up again", () => {
    const slotted = mountedAs(moved(DESIGN, MOTOR, { x: 0, y: 0 }), MOTOR, "slot", { x: 0.05, y: 0.02 });
    expect(shaftOf(slotted, MOTOR)).toEqual({
      shaft: MOTOR,
      mount: "slot",
      slot: { start: ["40 mm", "20 mm"], end: ["60 mm", "20 mm"] },
    });
    const back = mountedAs(slotted, MOTOR, "fixed", { x: 0.05, y: 0.02 });
    expect(shaftOf(back, MOTOR)).toEqual({ shaft: MOTOR, mount: "fixed", at: ["50 mm", "20 mm"] });
  });
});

describe("holes", () => {
  it("are the nearest ones of the plate", () => {
    const hole = snapped(PLATE, { x: 0.0131, y: 0.5 });
    expect([hole.x, hole.y].map((m) => Math.round(m * 1e6))).toEqual([12_000, 36_000]);
    expect(snapped(null, { x: 0.0131, y: 0.5 })).toEqual({ x: 0.0131, y: 0.5 });
  });

  it("are walked with the arrows, tenths of a millimetre with Shift", () => {
    const from = { x: 0.012, y: 0.012 };
    expect(arrowed(PLATE, "holes", from, "ArrowRight", false)).toEqual({ x: 0.024, y: 0.012 });
    expect(arrowed(PLATE, "holes", from, "ArrowUp", true)?.y).toBeCloseTo(0.0121, 9);
    expect(arrowed(PLATE, "free", from, "ArrowLeft", false)?.x).toBeCloseTo(0.011, 9);
    expect(arrowed(PLATE, "holes", { x: 0, y: 0 }, "ArrowDown", false)).toEqual({ x: 0, y: 0 });
    expect(arrowed(PLATE, "holes", from, "Enter", false)).toBeNull();
  });
});

describe("a way to place all", () => {
  it("puts shafts on their holes, leaves slots alone, and takes the lengths with it", () => {
    const slotted = mountedAs(DESIGN, "drive.stages[0]", "slot", { x: 0, y: 0 });
    const made = placed(
      KINDS,
      slotted,
      { [MOTOR]: [0.012, 0.024], "drive.stages[0]": [9, 9] },
      { "drive.stages[0]": "90 teeth", "drive.stages[1]": "900 mm" },
    );
    expect(shaftOf(made, MOTOR)).toEqual({ shaft: MOTOR, mount: "holes", at: ["12 mm", "24 mm"] });
    expect(shaftOf(made, "drive.stages[0]")?.at).toBeUndefined();
    expect(made.drive.stages?.[0]?.belt_teeth).toBe(90);
    expect((made.fit as { loops: unknown }).loops).toEqual([{ stage: "drive.stages[1]", length: "900 mm" }]);
  });

  it("takes what helps: wheels, places, and an idler with its side", () => {
    const way = { at: { [MOTOR]: [0.024, 0] }, lengths: {}, error: 0, room: null, size: 0 };
    const idler = { stage: "drive.stages[0]", at: [0.1, 0.03125], diameter: 0.0286, outside: true };
    const help = { text: "", extra: 0, way, teeth: { "drive.stages[0].driver_teeth": 20 }, idler };
    const made = helped(KINDS, DESIGN, help);
    expect(shaftOf(made, MOTOR)?.at).toEqual(["24 mm", "0 mm"]);
    expect(made.drive.stages?.[0]?.driver_teeth).toBe(20);
    expect((made.fit as { loops: unknown }).loops).toEqual([
      {
        stage: "drive.stages[0]",
        tensioner: { at: ["100 mm", "31.25 mm"], diameter: "28.6 mm", outside: true },
      },
    ]);
    const slot = { shaft: MOTOR, start: [0.02, 0.01], end: [0.031, 0.01] };
    const wider = helped(KINDS, DESIGN, { text: "", extra: 0, way, slot, tolerance: 0.00025 });
    expect(wider.fit).toMatchObject({ tolerance: "0.25 mm" });
    expect(shaftOf(wider, MOTOR)).toEqual({
      shaft: MOTOR,
      mount: "slot",
      slot: { start: ["20 mm", "10 mm"], end: ["31 mm", "10 mm"] },
    });
  });

  it("says a loop's length once", () => {
    const twice = withLoop(withLoop(DESIGN, "drive.stages[1]", { length: "900 mm" }), "drive.stages[1]", {
      length: "950 mm",
    });
    expect((twice.fit as { loops: unknown[] }).loops).toEqual([
      { stage: "drive.stages[1]", length: "950 mm" },
    ]);
  });
});

it("a filled stack keeps its items and takes the new spacers between them", () => {
  const stack = {
    between: "20 mm",
    items: [
      { name: "gear", width: "9 mm" },
      { width: "1 mm", spacer: true },
    ],
  };
  const made = filled(stack, [
    { item: 0, name: "", width: "" },
    { item: null, name: "spacer 5 mm", width: "5 mm" },
  ]);
  expect(made.items).toEqual([
    { name: "gear", width: "9 mm" },
    { name: "spacer 5 mm", width: "5 mm", spacer: true },
  ]);
});
