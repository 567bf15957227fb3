import { describe, expect, it } from "vitest";
import { note, typedText } from "../ui/fields/typed";
import { at, differences, keys, spoken, withValue } from "./document";
import { fileName } from "./files";

describe("paths", () => {
  it("are told in words", () => {
    expect(spoken("drive.branches[0].stages[1].driven_teeth")).toBe("branch 1 › stage 2 › driven teeth");
    expect(spoken("targets[2].at_least")).toBe("target 3 › at least");
  });

  const document = { drive: { stages: [{ teeth: 5 }, { teeth: 6 }] }, name: "Knot" };

  it("are taken apart", () => {
    expect(keys("drive.branches[0].stages[12].kind")).toEqual(["drive", "branches", 0, "stages", 12, "kind"]);
  });

  it("lead to values", () => {
    expect(at(document, "drive.stages[1].teeth")).toBe(6);
    expect(at(document, "drive.stages[7].teeth")).toBeUndefined();
    expect(at(document, "name.first")).toBeUndefined();
  });

  it("are written without touching the old document", () => {
    const changed = withValue(document, "drive.stages[1].teeth", 9);
    expect(changed.drive.stages[1]?.teeth).toBe(9);
    expect(document.drive.stages[1]?.teeth).toBe(6);
    expect(changed.drive.stages[0]).toBe(document.drive.stages[0]);
  });

  it("are made where they are missing, and taken away", () => {
    expect(withValue({}, "run.distance", "5 m")).toEqual({ run: { distance: "5 m" } });
    expect(withValue(document, "name", undefined)).not.toHaveProperty("name");
    expect(withValue(document, "drive.stages[0]", undefined).drive.stages).toEqual([{ teeth: 6 }]);
  });
});

describe("typed quantities", () => {
  it("are shown as they were typed", () => {
    expect(typedText("3 1/4 in")).toBe("3 1/4 in");
    expect(typedText({ value: "14.2 kg", origin: "measured" })).toBe("14.2 kg");
    expect(typedText(0.05, "m")).toBe("0.05 m");
    expect(typedText(undefined)).toBe("");
    expect(note({ value: 1, note: "scale" })).toBe("scale");
  });
});

describe("differences", () => {
  it("are listed by path", () => {
    const mine = { a: 1, list: [{ b: 2 }], only: "mine" };
    const theirs = { a: 1, list: [{ b: 3 }] };
    expect(differences(mine, theirs)).toEqual([
      { path: "list[0].b", mine: "2", theirs: "3" },
      { path: "only", mine: "mine", theirs: "nothing" },
    ]);
  });
});

describe("file names", () => {
  it("are plain", () => {
    expect(fileName("Sandpiper, second gearing")).toBe("sandpiper-second-gearing");
    expect(fileName(" // ")).toBe("design");
  });
});
