import answers from "@generated/answers.json";
import { fireEvent, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import type { BuildShown, BuildStep } from "../../api/client";
import { onTheBench, press } from "../../fixtures";
import { NextStep } from "./NextStep";
import type { Ticks } from "./useTicks";

const SHOWN = (answers.build as unknown as { shown: BuildShown }).shown;
const STEP = { ...SHOWN.steps.find((step) => step.what), held: [], done: false } as BuildStep;

test("a reading that was not taken stays typed, and may stand with a reason", async () => {
  const say = vi.fn();
  const entry = {
    id: "e",
    step: STEP.id,
    doing: "done",
    at: "",
    value: "0.9",
    note: "cold",
    about: "",
    title: "",
    reason: "",
  } as const;
  const reasons = [{ words: "end play: 0.9 mm is not 0.1 to 0.3 mm", step: STEP.id, until: null }];
  const ticks: Ticks = { say, waiting: 0, back: [{ entry, reasons }], shown: SHOWN };
  const nothing = vi.fn();
  onTheBench(
    <NextStep
      step={STEP}
      titles={new Map()}
      ticks={ticks}
      photos={{ add: nothing, remove: nothing, waiting: [], trouble: "" } as never}
      readOnly={false}
      isNext
      onBack={nothing}
      onDone={nothing}
      onChoose={nothing}
    />,
  );
  expect(screen.getByRole("alert").textContent).toContain("0.9 mm is not");
  expect(screen.getByDisplayValue("0.9")).toBeTruthy();
  await press("Done all the same, because …");
  fireEvent.change(screen.getByLabelText("Done all the same, because"), {
    target: { value: "shimmed later" },
  });
  fireEvent.submit(screen.getByLabelText("Done all the same, because").closest("form") as HTMLFormElement);
  expect(say).toHaveBeenCalledWith(STEP, "done", {
    value: "0.9",
    note: "cold",
    minutes: null,
    reason: "shimmed later",
  });
});
