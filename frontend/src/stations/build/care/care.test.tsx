import { fireEvent, screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { BuildAnswer } from "../../../api/client";
import { onTheBench, press } from "../../../fixtures";
import { type Call, Refuses, serving } from "../../../fixtures/server";
import { usePhotos } from "../usePhotos";
import { LookAfter } from "./LookAfter";

const Panel = (props: { answer: BuildAnswer; readOnly: boolean }) => (
  <LookAfter {...props} photos={usePhotos()} />
);

const ADDRESS = "/api/vehicles/{vehicle}/build/inspections/";
const STEPS = [
  { id: "belt", title: "Tighten the belt", about: "the belt" },
  { id: "bolt", title: "Lock the bolts", about: "the bolts" },
];
const CARES = [
  { step: "belt", words: "the belt's tension", last: null, next: 0, due: true },
  { step: "bolt", words: "the bolts", last: 0.5, next: 2.5, due: false },
];

function looked(hours: number, answers: Record<string, unknown> = {}, readOnly = false) {
  const calls = serving({ [`GET ${ADDRESS}`]: [], ...answers });
  const answer = { shown: { steps: STEPS, signed_at: "2026-11-28T10:00:00Z" }, cares: CARES, hours };
  const shown = onTheBench(<Panel answer={answer as unknown as BuildAnswer} readOnly={readOnly} />);
  return { calls, ...shown };
}

const type = (label: string | RegExp, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });
const sent = (call: Call | undefined) => call?.body as { id: string; document: unknown };

describe("what is looked after", () => {
  it("says how much is due, and when each was looked at last", () => {
    looked(1.5);
    expect(screen.getByText("One thing is due after 1.5 h of running.")).toBeTruthy();
    expect(screen.getByText("never")).toBeTruthy();
    expect(screen.getByText("30 min")).toBeTruthy();
  });

  it("is only looked at by who may not change it", () => {
    looked(1.5, {}, true);
    expect(screen.queryByText("Look it over")).toBeNull();
  });
});

describe("an inspection", () => {
  it("where all was well is one press, at the hours that were run", async () => {
    const { calls } = looked(1.456, { [`POST ${ADDRESS}`]: {} });
    await press("All was well: keep it");
    await waitFor(() => expect(sent(calls[0]).document).toEqual({ hours: 1.46, after: "", findings: [] }));
  });

  it("takes what was found, where, in words", async () => {
    const { calls } = looked(2, { [`POST ${ADDRESS}`]: {} });
    type("after what", "Causeway Day");
    type("hours run in all", "2,5");
    await press("Something was found");
    type("What happened", "worn");
    type("Where", "bolt");
    type("In words", "thread is gone");
    await press("Keep this inspection");
    await waitFor(() => expect(calls).toHaveLength(1));
    expect(sent(calls[0]).document).toEqual({
      hours: 2.5,
      after: "Causeway Day",
      findings: [{ step: "bolt", found: "worn", words: "thread is gone" }],
    });
    await waitFor(() => expect((screen.getByLabelText("after what") as HTMLInputElement).value).toBe(""));
  });

  it("that is being typed outlives what others keep meanwhile, and a reload", async () => {
    const { unmount } = looked(2);
    type("after what", "Causeway Day");
    await press("Something was found");
    type("In words", "thread is gone");
    unmount();
    looked(3);
    expect((screen.getByLabelText("after what") as HTMLInputElement).value).toBe("Causeway Day");
    expect((screen.getByLabelText("In words") as HTMLInputElement).value).toBe("thread is gone");
    expect((screen.getByLabelText("hours run in all") as HTMLInputElement).value).toBe("3");
  });

  it("that was refused stays, and keeps its number when it is sent again", async () => {
    const answers = [new Refuses({ detail: "The server is busy." }, 503), {}];
    const { calls } = looked(2, { [`POST ${ADDRESS}`]: () => answers.shift() });
    type("after what", "Causeway Day");
    await press("All was well: keep it");
    expect((await screen.findByRole("alert")).textContent).toBe("The server is busy.");
    await press("All was well: keep it");
    await waitFor(() => expect(calls).toHaveLength(2));
    expect(sent(calls[1]).id).toBe(sent(calls[0]).id);
  });
});
