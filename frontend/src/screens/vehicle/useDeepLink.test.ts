import { expect, test } from "vitest";
import { linkTo, selectionOf } from "./useDeepLink";

test("a wheel, a field of a stage, of a source and of the supply choose what they belong to", () => {
  expect(selectionOf("drive.stages[0] driven")).toEqual({ path: "drive.stages[0]", member: "driven" });
  expect(selectionOf("drive.branches[1].stages[2] idler 1")).toEqual({
    path: "drive.branches[1].stages[2]",
    member: "idler 1",
  });
  expect(selectionOf("drive.stages[1].efficiency")).toEqual({ path: "drive.stages[1]", member: "driver" });
  expect(selectionOf("drive.branches[1].source.constants.kv")?.path).toBe("drive.branches[1].source");
  expect(selectionOf("drive.supply.resistance")?.member).toBe("supply");
  expect(selectionOf("vehicle.grip")).toBeNull();
});

test("a link leads back to what it was made from", () => {
  const selected = { path: "drive.branches[0].stages[0]", member: "idler 2" };
  expect(selectionOf(linkTo(selected))).toEqual(selected);
});
