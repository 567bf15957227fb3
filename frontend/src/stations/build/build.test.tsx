import answers from "@generated/answers.json";
import { expect, test } from "vitest";
import type { BuildShown, BuildStep, StepEntry } from "../../api/client";
import { withEntries } from "./useTicks";
import { minutes, upNext } from "./words";

const { shown: FIRST, after: AFTER, touched: TOUCHED } = answers.build as unknown as Build;
const NOON = Date.parse("2026-05-09T12:00:00Z");
const DAY = 86_400_000;

interface Build {
  shown: BuildShown;
  after: {
    ticked: string;
    held: Record<string, BuildStep["held"]>;
    loose: BuildShown["loose"];
    next: string[];
  }[];
  /** All done and signed, then the pinion changed. */
  touched: BuildShown;
}

const entry = (step: string, at = NOON + DAY, doing: StepEntry["doing"] = "done") =>
  ({
    id: `${step} ${doing}`,
    step,
    doing,
    at: new Date(at).toISOString(),
    value: "0.2",
    reason: "x",
  }) as StepEntry;
const inMs = (held: BuildStep["held"]) =>
  held.map((reason) => ({ ...reason, until: reason.until && Date.parse(reason.until) }));

test("without entries it is what the server says", () => {
  expect(withEntries(FIRST, [], "me", NOON)).toBe(FIRST);
});

test("all ticks of a build without a connection come to what the core says after each", () => {
  const entries = AFTER.map(({ ticked }, k) => entry(ticked, NOON + (k + 1) * DAY));
  for (const [k, after] of AFTER.entries()) {
    const shown = withEntries(FIRST, entries.slice(0, k + 1), "me", NOON + (k + 1) * DAY);
    expect(shown.next, after.ticked).toEqual(after.next);
    expect(shown.loose, after.ticked).toEqual(after.loose);
    expect(shown.done).toBe(k + 1);
    for (const step of shown.steps) expect(inMs(step.held), step.id).toEqual(inMs(after.held[step.id] ?? []));
  }
});

test("what has to be done once more is next again, and holds what stands on it", () => {
  const [step = ""] = TOUCHED.next;
  expect(TOUCHED.steps.find(({ id }) => id === step)?.once_more).toContain("17-tooth gear");
  const shown = withEntries(TOUCHED, [entry(step, NOON + 200 * DAY)], "me", NOON + 200 * DAY);
  expect(shown.next).not.toContain(step);
  expect(shown.steps.find(({ id }) => id === step)?.once_more).toBe("");
  const signed = shown.steps.find(({ kind }) => kind === "sign_off");
  expect([signed?.done, signed?.held.length === 0]).toEqual([false, false]);
});

test("the last word of a step holds", () => {
  const [step = ""] = FIRST.next;
  const found = (doing: StepEntry["doing"]) =>
    withEntries(FIRST, [entry(step), entry(step, NOON + DAY, doing)], "me", NOON + DAY).steps.find(
      ({ id }) => id === step,
    );
  expect(found("done")).toMatchObject({ done: true, by: "me", value: "0.2" });
  expect(found("undone")).toMatchObject({ done: false, reason: "x" });
  expect(found("later")).toMatchObject({ done: false, later: "x" });
});

test("what is left is shown though all of it is held back, and nothing is finished before it is", () => {
  const held = { ...FIRST, next: [] };
  expect(upNext(FIRST, "")?.id).toBe(FIRST.next[0]);
  expect(upNext(held, "")?.id).toBe(FIRST.steps[0]?.id);
  expect(upNext(held, FIRST.steps[2]?.id ?? "")?.id).toBe(FIRST.steps[2]?.id);
  const done = held.steps.map((step) => ({ ...step, done: true, once_more: "" }));
  expect(upNext({ ...held, steps: done }, "")).toBeUndefined();
});

test("minutes are told in hours from an hour and a half on", () => {
  expect([15, 89, 90, 120].map(minutes)).toEqual(["15 min", "89 min", "1 h 30", "2 h"]);
});
