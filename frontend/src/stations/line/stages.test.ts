import { describe, expect, it } from "vitest";
import { at, type DesignDocument } from "../../design/document";
import { addStage, removeStage } from "./stages";

const document = {
  drive: { branches: [{ stages: [{ kind: "gear" }] }], stages: [{ kind: "belt" }] },
} as unknown as DesignDocument;

describe("addStage", () => {
  it("puts a stage after the selected one and selects it", () => {
    const made = addStage(document, "drive.stages[0]", "chain");
    expect(made.selected).toEqual({ path: "drive.stages[1]", member: "driver" });
    expect(at(made.document, "drive.stages[1].kind")).toBe("chain");
  });

  it("puts one first after the motor", () => {
    const made = addStage(document, "drive.branches[0].source", "gearbox");
    expect(made.selected).toEqual({ path: "drive.branches[0].stages[0]", member: "box" });
    expect(at(made.document, "drive.branches[0].stages[1].kind")).toBe("gear");
  });
});

describe("removeStage", () => {
  it("closes the gap", () => {
    expect(at(removeStage(document, "drive.stages[0]"), "drive.stages")).toEqual([]);
  });
});
