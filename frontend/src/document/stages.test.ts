import { describe, expect, it } from "vitest";
import { KINDS, kind } from "../fixtures/kinds";
import type { DesignDocument, Stage } from "./document";
import {
  addBranch,
  addStage,
  dropStage,
  duplicateStage,
  moveStage,
  removeBranch,
  removeStage,
  swapMembers,
} from "./stages";

const GEAR: Stage = { kind: "gear", driver_teeth: 14, driven_teeth: 56, module: "1 mm" };
const BELT: Stage = { kind: "belt", driver_teeth: 18, driven_teeth: 36, pitch: "5 mm", belt_teeth: 84 };
const CHAIN: Stage = { kind: "chain", driver_teeth: 11, driven_teeth: 22 };
const MOTOR = { kind: "motor" };

const made = (own: Stage[], trunk: Stage[]): DesignDocument => ({
  format: "ydrometer-design",
  version: 1,
  vehicle: {},
  drive: { supply: { kind: "battery" }, branches: [{ source: MOTOR, stages: own }], stages: trunk },
});
const kinds = (document: DesignDocument) => [
  (document.drive.branches[0]?.stages ?? []).map((s) => s.kind),
  (document.drive.stages ?? []).map((s) => s.kind),
];
const GEAR_PATH = "drive.branches[0].stages[0]";

describe("addStage", () => {
  it("goes after the selected one, or first after a source", () => {
    const after = addStage(KINDS, made([GEAR], [BELT]), GEAR_PATH, kind("chain"));
    expect(kinds(after.document)).toEqual([["gear", "chain"], ["belt"]]);
    expect(after.selected).toEqual({ path: "drive.branches[0].stages[1]", member: "driver" });
    const first = addStage(KINDS, made([GEAR], []), "drive.branches[0].source", kind("gearbox"));
    expect(kinds(first.document)).toEqual([["gearbox", "gear"], []]);
    expect(first.selected?.member).toBe("box");
  });

  it("puts a box of several speeds into the trunk", () => {
    expect(kinds(addStage(KINDS, made([GEAR], [BELT]), GEAR_PATH, kind("speeds")).document)).toEqual([
      ["gear"],
      ["speeds", "belt"],
    ]);
  });
});

describe("moveStage", () => {
  it("changes the order, out of the only branch and back", () => {
    const document = made([GEAR], [BELT, CHAIN]);
    expect(kinds(moveStage(KINDS, document, "drive.stages[0]", 1).document)).toEqual([
      ["gear"],
      ["chain", "belt"],
    ]);
    const joined = moveStage(KINDS, document, GEAR_PATH, 1);
    expect(kinds(joined.document)).toEqual([[], ["gear", "belt", "chain"]]);
    expect(joined.selected?.path).toBe("drive.stages[0]");
    expect(kinds(moveStage(KINDS, joined.document, "drive.stages[0]", -1).document)).toEqual([
      ["gear"],
      ["belt", "chain"],
    ]);
  });

  it("stays where it is at the end of the line, and between branches", () => {
    const document = made([GEAR], [BELT]);
    expect(moveStage(KINDS, document, "drive.stages[0]", 1).document).toBe(document);
    const two = addBranch(document).document;
    expect(moveStage(KINDS, two, GEAR_PATH, 1).document).toBe(two);
  });
});

it("a stage is dropped where another stands", () => {
  const document = made([GEAR], [BELT, CHAIN]);
  expect(kinds(dropStage(KINDS, document, "drive.stages[1]", "drive.stages[0]").document)).toEqual([
    ["gear"],
    ["chain", "belt"],
  ]);
  expect(kinds(dropStage(KINDS, document, "drive.stages[1]", GEAR_PATH).document)).toEqual([
    ["chain", "gear"],
    ["belt"],
  ]);
});

it("duplicates and removes, and tells what is selected then", () => {
  const twice = duplicateStage(KINDS, made([GEAR], []), GEAR_PATH);
  expect(kinds(twice.document)).toEqual([["gear", "gear"], []]);
  expect(twice.selected?.path).toBe("drive.branches[0].stages[1]");
  expect(removeStage(KINDS, twice.document, "drive.branches[0].stages[1]").selected?.path).toBe(GEAR_PATH);
  expect(removeStage(KINDS, made([GEAR], []), GEAR_PATH).selected).toBeNull();
});

it("swaps driver and driven where there are two", () => {
  expect(swapMembers(KINDS, made([GEAR], []), GEAR_PATH)?.drive.branches[0]?.stages?.[0]).toMatchObject({
    driver_teeth: 56,
    driven_teeth: 14,
  });
  expect(swapMembers(KINDS, made([{ kind: "gearbox", ratio: 4 }], []), GEAR_PATH)).toBeNull();
  expect(swapMembers(KINDS, made([{ ...GEAR, internal: true }], []), GEAR_PATH)).toBeNull();
});

describe("branches", () => {
  it("one more is like the last; the last one stays", () => {
    const two = addBranch(made([GEAR], [BELT]));
    expect(two.document.drive.branches).toHaveLength(2);
    expect(two.selected?.path).toBe("drive.branches[1].source");
    const one = removeBranch(two.document, 0).document;
    expect(one.drive.branches).toHaveLength(1);
    expect(removeBranch(one, 0).document).toBe(one);
  });

  it("the supply goes with the last motor", () => {
    const two = addBranch(made([GEAR], [])).document;
    const engine = {
      ...two,
      drive: {
        ...two.drive,
        branches: [{ source: { kind: "engine" } }, two.drive.branches[1] ?? { source: MOTOR }],
      },
    };
    expect(removeBranch(engine, 1).document.drive.supply).toBeUndefined();
  });
});
