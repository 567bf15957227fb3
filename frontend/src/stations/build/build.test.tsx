import { expect, test } from "vitest";
import type { BuildShown, BuildStep, StepEntry } from "../../api/client";
import { withEntries } from "./useTicks";
import { minutes } from "./words";

const step = (id: string, more: Partial<BuildStep> = {}) =>
  ({ id, title: id, done: false, held: [], opens: [], at: null, by: "", value: "", ...more }) as BuildStep;
const loose = (closed_by: string) => ({ id: "bolts", words: "mount bolts", opened_by: "mount", closed_by });
const entry = (id: string, doing: StepEntry["doing"] = "done") =>
  ({
    id: `e-${id}-${doing}`,
    step: id,
    doing,
    at: "2027-05-03T18:00:00Z",
    value: "0.2",
    reason: "x",
  }) as StepEntry;
const SHOWN = {
  steps: [
    step("mount", { opens: [loose("tighten")] }),
    step("tighten", { held: [{ words: "needs first: mount", step: "mount" }] }),
    step("power", { held: [{ words: "needs first: tighten", step: "tighten" }] }),
  ],
  next: ["mount"],
  loose: [],
  done: 0,
} as unknown as BuildShown;

test("without entries it is what the server says", () => {
  expect(withEntries(SHOWN, [], "me")).toBe(SHOWN);
});

test("a tick shows at once, with what it leaves loose and what it frees", () => {
  const shown = withEntries(SHOWN, [entry("mount")], "me");
  expect(shown.steps[0]).toMatchObject({ done: true, by: "me", value: "0.2" });
  expect(shown.loose.map((one) => one.words)).toEqual(["mount bolts"]);
  expect(shown.next[0]).toBe("tighten");
  expect(shown.done).toBe(1);
});

test("several ticks without a connection follow each other", () => {
  const shown = withEntries(SHOWN, [entry("mount"), entry("tighten")], "me");
  expect(shown.loose).toEqual([]);
  expect(shown.next).toEqual(["power"]);
});

test("the last word of a step holds", () => {
  const shown = withEntries(SHOWN, [entry("mount"), entry("mount", "undone")], "me");
  expect(shown.steps[0]).toMatchObject({ done: false, reason: "x" });
  expect(withEntries(SHOWN, [entry("mount", "later")], "me").steps[0]).toMatchObject({ later: "x" });
});

test("minutes are told in hours from an hour and a half on", () => {
  expect([15, 89, 90, 120].map(minutes)).toEqual(["15 min", "89 min", "1 h 30", "2 h"]);
});
