import { describe, expect, it } from "vitest";
import { KINDS, kind } from "../fixtures/kinds";
import { carried } from "./carried";
import { type DesignDocument, withValue } from "./document";
import type { Mounting } from "./mounting";
import { addStage, moveStage, removeStage } from "./stages";

const DESIGN = {
  format: "ydrometer-design",
  version: 1,
  vehicle: {},
  drive: {
    branches: [{ source: { kind: "motor" }, stages: [{ kind: "gear", driver_teeth: 12, driven_teeth: 40 }] }],
    stages: [
      { kind: "belt", driver_teeth: 18, driven_teeth: 36 },
      { kind: "chain", driver_teeth: 11, driven_teeth: 22 },
    ],
  },
  fit: {
    shafts: [
      { shaft: "drive.branches[0].source", mount: "fixed" },
      {
        shaft: "drive.branches[0].stages[0]",
        stack: { between: "9 mm", items: [{ width: "1 mm", wheel: "drive.stages[0] driver" }] },
      },
      { shaft: "drive.stages[0]" },
      { shaft: "drive.stages[1]" },
    ],
    behind: [{ stage: "drive.stages[1]" }],
    loops: [{ stage: "drive.stages[1]", tension: "9 N" }],
  },
} as unknown as DesignDocument;

const shafts = (document: DesignDocument) => (document.fit as Mounting).shafts?.map((entry) => entry.shaft);

describe("what is said of mounting", () => {
  it("follows stages that make room for another one", () => {
    const carriedOver = carried(
      DESIGN,
      addStage(KINDS, DESIGN, "drive.branches[0].stages[0]", kind("gear")).document,
    );
    expect(shafts(carriedOver)).toEqual(shafts(DESIGN));
    const first = carried(DESIGN, addStage(KINDS, DESIGN, "drive.stages[0]", kind("gear")).document);
    expect(shafts(first)?.slice(2)).toEqual(["drive.stages[0]", "drive.stages[2]"]);
    expect((first.fit as Mounting).loops?.[0]?.stage).toBe("drive.stages[2]");
    expect((first.fit as Mounting).behind?.[0]?.stage).toBe("drive.stages[2]");
  });

  it("goes with a stage that is moved, its wheels in stacks too", () => {
    const made = carried(DESIGN, moveStage(KINDS, DESIGN, "drive.stages[0]", 1).document);
    expect(shafts(made)?.slice(2)).toEqual(["drive.stages[1]", "drive.stages[0]"]);
    expect((made.fit as Mounting).shafts?.[1]?.stack?.items?.[0]?.wheel).toBe("drive.stages[1] driver");
  });

  it("ends with a stage that is taken out, and never speaks of another one instead", () => {
    const made = carried(DESIGN, removeStage(KINDS, DESIGN, "drive.stages[0]").document);
    expect(shafts(made)).toEqual([
      "drive.branches[0].source",
      "drive.branches[0].stages[0]",
      "drive.stages[0]",
    ]);
    expect((made.fit as Mounting).loops?.[0]).toEqual({ stage: "drive.stages[0]", tension: "9 N" });
  });

  it("stays where another kind of stage takes the place", () => {
    const made = carried(DESIGN, withValue(DESIGN, "drive.stages[0]", kind("gear").start));
    expect(shafts(made)).toEqual(shafts(DESIGN));
  });

  it("is left alone where nothing else changed", () => {
    const made = { ...DESIGN, name: "Other" };
    expect(carried(DESIGN, made)).toBe(made);
  });
});
