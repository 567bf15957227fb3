import { expect, test } from "vitest";
import type { LineDrawing } from "../api/client";
import { stops } from "./order";

test("everything is met in the order of power, each branch first", () => {
  const wheel = (path: string, member: string) => ({ path, member });
  const row = (parts: object) => ({ sources: [], wheels: [], boxes: [], ...parts });
  const line = {
    rows: [
      row({
        sources: [{ path: "drive.branches[0].source" }, { path: "drive.branches[1].source" }],
        wheels: [
          wheel("drive.stages[0]", "driver"),
          wheel("drive.branches[1].stages[0]", "driver"),
          wheel("drive.branches[0].stages[1]", "driver"),
          wheel("drive.branches[0].stages[1]", "driven"),
        ],
        boxes: [{ path: "drive.branches[0].stages[0]" }],
      }),
      row({ wheels: [wheel("drive.stages[1]", "driven")] }),
    ],
  } as unknown as LineDrawing;
  expect(stops(line).map(({ at, row: number }) => `${number} ${at.path} ${at.member}`)).toEqual([
    "0 drive.branches[0].source motor",
    "0 drive.branches[0].stages[0] box",
    "0 drive.branches[0].stages[1] driver",
    "0 drive.branches[0].stages[1] driven",
    "0 drive.branches[1].source motor",
    "0 drive.branches[1].stages[0] driver",
    "0 drive.stages[0] driver",
    "1 drive.stages[1] driven",
  ]);
});
