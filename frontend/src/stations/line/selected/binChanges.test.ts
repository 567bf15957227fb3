import { describe, expect, it } from "vitest";
import { KINDS } from "../../../fixtures/kinds";
import { sourceChanges, wheelChanges, wholeChanges, wholeKind } from "./binChanges";

const branch = "drive.branches[0]";

describe("parts of the bin in a design", () => {
  it("a motor brings its name and its controller, and takes a clutch away", () => {
    const source = { kind: "motor", constants: { kv: "420 rpm/V" } };
    const part = { id: "m", kind: "motor", name: "outrunner", source, controller: { current_limit: "22 A" } };
    expect(sourceChanges(branch, part)).toEqual({
      [`${branch}.source`]: { ...source, name: "outrunner" },
      [`${branch}.controller`]: { current_limit: "22 A" },
      [`${branch}.clutch`]: undefined,
    });
    const { controller: _, ...bare } = part;
    expect(`${branch}.controller` in sourceChanges(branch, bare)).toBe(false);
  });

  it("an engine brings its clutch, and takes a controller away", () => {
    const source = { kind: "engine", torque_curve: [["1800 rpm", "6 N*m"]] };
    const part = { id: "e", kind: "engine", source, clutch: { engagement_speed: "2000 rpm" } };
    expect(sourceChanges(branch, part)).toEqual({
      [`${branch}.source`]: source,
      [`${branch}.controller`]: undefined,
      [`${branch}.clutch`]: part.clutch,
    });
  });

  it("a box is a gearbox or a stack, one of several speeds is neither", () => {
    const box = { id: "x", kind: "gearbox", ratio: 5, efficiency: 0.9 };
    expect(wholeChanges(KINDS, "p", box)).toEqual({ p: { kind: "gearbox", ratio: 5, efficiency: 0.9 } });
    expect(wholeChanges(KINDS, "p", { id: "y", kind: "gearbox", reductions: [4, 3] })).toEqual({
      p: { kind: "planetary", reductions: [4, 3] },
    });
    expect(wholeChanges(KINDS, "p", { ...box, torque_rating: "4 N*m" })).toEqual({
      p: { kind: "gearbox", ratio: 5, efficiency: 0.9, torque_rating: "4 N*m" },
    });
    expect(wholeKind(KINDS, { id: "z", kind: "gearbox", ratios: [3, 2] })).toBeUndefined();
  });

  it("a gear brings its material; its width only where none is said", () => {
    const gear = { id: "g", kind: "gear", teeth: 20, material: "brass", width: "6 mm" };
    const kind = KINDS.of("gear");
    expect(wheelChanges(kind, {}, "p", "driven", gear)).toMatchObject({
      "p.driven_material": "brass",
      "p.width": "6 mm",
    });
    expect("p.width" in wheelChanges(kind, { width: "8 mm" }, "p", "driven", gear)).toBe(false);
    const unknown = wheelChanges(kind, {}, "p", "driver", { ...gear, material: "what lay about" });
    expect(unknown["p.driver_material"]).toBeUndefined();
  });

  it("a motor brings what it weighs", () => {
    const source = { kind: "motor", constants: { kv: "420 rpm/V" } };
    const part = { id: "m", kind: "motor", source, mass: "310 g" };
    expect(sourceChanges(branch, part)[`${branch}.source`]).toEqual({ ...source, mass: "310 g" });
  });
});
