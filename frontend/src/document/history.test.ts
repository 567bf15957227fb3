import { describe, expect, it } from "vitest";
import { begin, type History, history } from "./history";

const to = (value: number) => ({ type: "edit", edit: () => value }) as const;
const run = (...actions: Parameters<typeof history<number>>[1][]): History<number> =>
  actions.reduce<History<number>>(history, begin(1));

describe("history", () => {
  it("goes back and forth", () => {
    const steps = run(to(2), to(3), { type: "undo" });
    expect(steps.present).toBe(2);
    expect(run(to(2), to(3), { type: "undo" }, { type: "redo" }).present).toBe(3);
    expect(run(to(2), { type: "undo" }, { type: "undo" }).present).toBe(1);
  });

  it("forgets what was undone when something new is done", () => {
    const steps = run(to(2), { type: "undo" }, to(5), { type: "redo" });
    expect(steps.present).toBe(5);
    expect(steps.future).toEqual([]);
  });

  it("takes the edits of one gesture as one step", () => {
    const drag = (value: number, gesture: string) => ({ ...to(value), gesture });
    const steps = run(drag(2, "a"), drag(3, "a"), drag(4, "b"));
    expect(steps.past).toEqual([1, 3]);
    expect(run(drag(2, "a"), { type: "undo" }, drag(7, "a")).past).toEqual([1]);
  });

  it("does not count a change that changes nothing", () => {
    expect(run({ type: "edit", edit: (n) => n }).past).toEqual([]);
  });
});
