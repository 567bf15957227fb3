import { fireEvent, screen, waitFor } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import type { KeptPlan } from "../../../api/client";
import { DOCUMENTS, onTheBench, press } from "../../../fixtures";
import { type Call, Refuses, serving } from "../../../fixtures/server";
import type { PracticeRig } from "../instrument/useRig";
import { PlanPanel } from "./PlanPanel";
import { type PlanDocument, usePlan } from "./usePlan";

const STEP = {
  key: "1 small",
  gearing: "small",
  round: 1,
  words: "Time over 25 m",
  change: "14 teeth for 12",
  swap: true,
  predicted: 3.5,
  dimension: "time",
  run: { kind: "distance_time", distance: "25 m" },
  done: "",
};
const STEPS = [STEP, { ...STEP, key: "1 large", gearing: "large" }, { ...STEP, key: "2 small", round: 2 }];
const GEARINGS = ["small", "large"].map((name) => ({ name, design: DOCUMENTS.plain }));
const DOCUMENT: PlanDocument = {
  format: "ydrometer-plan",
  version: 1,
  gearings: GEARINGS,
  measures: [{ kind: "distance_time", distance: "25 m" }],
  rounds: 2,
  readings: 3,
};
const WORKED_OUT = {
  seconds: 1500,
  charge: null,
  share: 0.4,
  hottest: 340,
  limit: 380,
  rest: 90,
  drift: "it tires.",
};

/** As the server keeps a plan of these steps. */
function keptPlan(version: number, done: Record<string, string>, steps = STEPS): KeptPlan {
  const ticked = steps.map((step) => ({ ...step, done: done[step.key] ?? "" }));
  return {
    version,
    document: { ...DOCUMENT, done } as unknown as Record<string, unknown>,
    planned: { ...WORKED_OUT, steps: ticked },
  };
}

const ADDRESS = "/api/vehicles/{vehicle}/plan/";
const rig = (action: string | null = null) =>
  ({
    state: { action, after: 0, hidden: [] },
    trouble: "",
    order: vi.fn(async () => true),
  }) as unknown as PracticeRig;

function panel(answers: Record<string, unknown>, held = rig()) {
  const calls = serving({ [`GET ${ADDRESS}choices/`]: CHOICES, ...answers });
  const [onType, onRig] = [vi.fn(), vi.fn()];
  const Panel = () => <PlanPanel plan={usePlan()} rig={held} onType={onType} onRig={onRig} />;
  const { unmount } = onTheBench(<Panel />);
  return { calls, onType, onRig, unmount };
}

const CHOICES = ["small", "large", "huge"].map((name) => ({
  name,
  source: "of the bin",
  mounts: name !== "huge",
  design: DOCUMENTS.plain,
}));

const sent = (calls: Call[]) =>
  calls.map(({ body }) => {
    const { base, document } = body as { base: number; document: PlanDocument };
    return [base, document.done];
  });
const tick = async (name: string | RegExp) => fireEvent.click(await screen.findByLabelText(name));

describe("the next step of a plan", () => {
  it("is told in full, with what to put on, and brought into the form", async () => {
    const { onType } = panel({ [`GET ${ADDRESS}`]: keptPlan(4, {}) });
    expect(await screen.findByText("Put on small: 14 teeth for 12.")).toBeTruthy();
    expect(screen.getByText("Time over 25 m, 3 readings, with small")).toBeTruthy();
    await press("Type it");
    expect(onType.mock.calls[0]?.[0]).toMatchObject({
      kind: "distance_time",
      step: { key: "1 small", gearing: "small" },
    });
  });

  it("is run on the rig, and ticked off with it", async () => {
    const held = rig();
    const { calls, onRig } = panel(
      { [`GET ${ADDRESS}`]: keptPlan(4, { "1 small": "r" }), [`PUT ${ADDRESS}`]: keptPlan(5, {}) },
      held,
    );
    await press("On the practice rig");
    await waitFor(() => expect(sent(calls)).toEqual([[4, { "1 small": "r", "1 large": "rig" }]]));
    expect(held.order).toHaveBeenCalledWith("run", 3, null, DOCUMENTS.plain);
    expect(onRig).toHaveBeenCalled();
  });

  it("waits while the rig is at work, and says when all is done", async () => {
    const all = Object.fromEntries(STEPS.map((step) => [step.key, "r"]));
    const answers = [keptPlan(1, {}), keptPlan(1, all)];
    panel({ [`GET ${ADDRESS}`]: () => answers[0] }, rig("run"));
    const button = (await screen.findByText("On the practice rig")) as HTMLButtonElement;
    expect(button.disabled).toBe(true);
    answers.shift();
    panel({ [`GET ${ADDRESS}`]: () => answers[0] });
    expect(await screen.findByText("All of it is done.")).toBeTruthy();
  });

  it("tells what it takes, and how warm that gets", async () => {
    panel({ [`GET ${ADDRESS}`]: keptPlan(1, {}) });
    const words = (await screen.findByText(/about 25 min/)).textContent;
    expect(words).toContain("40 % of the battery");
    expect(words).toContain("90 s of rest behind each run keep them cool");
    expect(words).toContain("It tires.");
  });
});

describe("ticks", () => {
  const FIRST = "Time over 25 m with small, round 1";
  const SECOND = "Time over 25 m with large, round 1";

  it("that follow each other quickly are each kept, one upon the other", async () => {
    const answers: ((kept: KeptPlan) => void)[] = [];
    const { calls } = panel({
      [`GET ${ADDRESS}`]: keptPlan(4, {}),
      [`PUT ${ADDRESS}`]: () => new Promise((answer) => answers.push(answer)),
    });
    await tick(FIRST);
    await waitFor(() => expect(calls).toHaveLength(1));
    await tick(SECOND);
    expect((screen.getByLabelText(SECOND) as HTMLInputElement).checked).toBe(true);
    answers.shift()?.(keptPlan(5, { "1 small": "by hand" }));
    await waitFor(() => expect(calls).toHaveLength(2));
    answers.shift()?.(keptPlan(6, { "1 small": "by hand", "1 large": "by hand" }));
    expect(sent(calls)).toEqual([
      [4, { "1 small": "by hand" }],
      [5, { "1 small": "by hand", "1 large": "by hand" }],
    ]);
  });

  it("go upon what somebody else ticked meanwhile", async () => {
    const kept = [keptPlan(4, {}), keptPlan(5, { "2 small": "theirs" })];
    const answers = [
      new Refuses({ detail: "Somebody has changed the plan since." }, 409),
      keptPlan(6, { "2 small": "theirs", "1 small": "by hand" }),
    ];
    const { calls } = panel({
      [`GET ${ADDRESS}`]: () => kept.shift(),
      [`PUT ${ADDRESS}`]: () => answers.shift(),
    });
    await tick(FIRST);
    await waitFor(() => expect(calls).toHaveLength(2));
    expect(sent(calls)[1]).toEqual([5, { "2 small": "theirs", "1 small": "by hand" }]);
    expect(screen.queryByRole("alert")).toBeNull();
  });

  it("wait on the device for a connection, through a reload too", async () => {
    const answers = [new TypeError("no connection"), keptPlan(5, { "1 small": "by hand" })];
    const answering = () => {
      const next = answers.shift();
      if (next instanceof Error) throw next;
      return next;
    };
    const here = { [`GET ${ADDRESS}`]: keptPlan(4, {}), [`PUT ${ADDRESS}`]: answering };
    const { calls, unmount } = panel(here);
    await tick(FIRST);
    await waitFor(() => expect(calls).toHaveLength(1));
    expect((screen.getByLabelText(FIRST) as HTMLInputElement).checked).toBe(true);
    unmount();
    const again = panel(here);
    await waitFor(() => expect(sent(again.calls)).toEqual([[4, { "1 small": "by hand" }]]));
    await waitFor(() => expect(localStorage.getItem("ydrometer-plan|a|v")).toBeNull());
    expect((screen.getByLabelText(FIRST) as HTMLInputElement).checked).toBe(true);
  });

  it("of a plan that somebody has replaced are dropped", async () => {
    const other = keptPlan(5, {}, [{ ...STEP, key: "1 huge", gearing: "huge" }]);
    const kept = [keptPlan(4, {}), other];
    const answers = [new Refuses({ detail: "Somebody has changed the plan since." }, 409), other];
    const { calls } = panel({
      [`GET ${ADDRESS}`]: () => kept.shift(),
      [`PUT ${ADDRESS}`]: () => answers.shift(),
    });
    await tick(FIRST);
    await waitFor(() => expect(calls).toHaveLength(2));
    expect(sent(calls)[1]).toEqual([5, {}]);
  });

  it("are taken away again", async () => {
    const { calls } = panel({
      [`GET ${ADDRESS}`]: keptPlan(4, { "1 small": "r", "1 large": "s" }),
      [`PUT ${ADDRESS}`]: keptPlan(5, { "1 large": "s" }),
    });
    await tick(FIRST);
    await waitFor(() => expect(sent(calls)).toEqual([[4, { "1 large": "s" }]]));
  });

  it("that are refused are told and shown no more", async () => {
    panel({
      [`GET ${ADDRESS}`]: keptPlan(4, {}),
      [`PUT ${ADDRESS}`]: new Refuses({ detail: "You may look." }, 403),
    });
    await tick(FIRST);
    expect((await screen.findByRole("alert")).textContent).toBe("You may look.");
    await waitFor(() => expect((screen.getByLabelText(FIRST) as HTMLInputElement).checked).toBe(false));
  });
});

describe("a new plan", () => {
  it("is dealt of what was ticked, and asks for a gearing and a measure first", async () => {
    const { calls } = panel({
      [`GET ${ADDRESS}`]: { version: 0, document: null, planned: null },
      [`PUT ${ADDRESS}`]: keptPlan(1, {}),
    });
    const deal = (await screen.findByText("Deal the order")) as HTMLButtonElement;
    expect(deal.disabled).toBe(true);
    await tick(/^small/);
    expect(screen.getByText("Two gearings or more can be compared.")).toBeTruthy();
    await tick(/^large/);
    fireEvent.change(screen.getByLabelText("Rounds"), { target: { value: "5" } });
    await press("Deal the order");
    expect(await screen.findByText("Time over 25 m, 3 readings, with small")).toBeTruthy();
    const { base, document } = (calls[0] as Call).body as { base: number; document: PlanDocument };
    expect(base).toBe(0);
    expect(document.gearings.map((gearing) => gearing.name)).toEqual(["small", "large"]);
    expect(document.measures.map((measure) => measure.kind)).toEqual(["distance_time"]);
    expect([document.rounds, document.readings, document.seldom]).toEqual([5, 3, false]);
  });

  it("shows apart what does not go on the plate", async () => {
    panel({ [`GET ${ADDRESS}`]: { version: 0, document: null, planned: null } });
    expect(await screen.findByText("1 that does not go on the plate")).toBeTruthy();
  });

  it("keeps its ticks where it is refused, and the old plan stays", async () => {
    panel({
      [`GET ${ADDRESS}`]: keptPlan(4, {}),
      [`PUT ${ADDRESS}`]: new Refuses({ detail: "Somebody has changed the plan since." }, 409),
    });
    await press("Another plan");
    await tick(/^large/);
    await press("Deal the order");
    expect((await screen.findByRole("alert")).textContent).toMatch(/changed the plan/);
    expect((screen.getByLabelText(/^large/) as HTMLInputElement).checked).toBe(true);
    await press("Back to the plan");
    expect(screen.getByText("Time over 25 m, 3 readings, with small")).toBeTruthy();
  });
});
