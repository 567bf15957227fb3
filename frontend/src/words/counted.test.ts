import { expect, test } from "vitest";
import { counted } from "./counted";

test("one is one, everything else is many", () => {
  expect([0, 1, 2, 2400].map((count) => counted(count, "run"))).toEqual([
    "0 runs",
    "1 run",
    "2 runs",
    "2,400 runs",
  ]);
});
