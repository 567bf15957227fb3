import { fireEvent, screen, waitFor } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import type { HistoryEntry } from "../../api/client";
import { withValue } from "../../document/document";
import { DOCUMENTS, onTheBench, press } from "../../fixtures";
import { Refuses, serving } from "../../fixtures/server";
import { History } from "./History";
import { Revisions } from "./Revisions";

const DRIVEN = "drive.branches[0].stages[0].driven_teeth";
const DRIVER = "drive.branches[0].stages[0].driver_teeth";

const entry = (number: number, before: number | null, more: Partial<HistoryEntry> = {}): HistoryEntry => ({
  number,
  before,
  words: `change ${number}`,
  author: "fen",
  began: "2026-11-28T10:00:00Z",
  ended: "2026-11-28T10:20:00Z",
  name: "",
  ...more,
});

/** Revisions of the plain design: of number n the driven wheel has 50 + n teeth. */
const revision = (number: number) => ({ number, document: withValue(DOCUMENTS.plain, DRIVEN, 50 + number) });
const asked = {
  "GET /api/vehicles/{vehicle}/revisions/{number}/": (call: { path: { number: number } }) =>
    revision(call.path.number),
};
const teethOf = (document: unknown) => {
  const made = document as typeof DOCUMENTS.plain;
  return made.drive.branches?.[0]?.stages?.[0];
};

describe("who changed what", () => {
  const history = (answer: unknown, present = DOCUMENTS.plain) => {
    serving({ ...asked, "GET /api/vehicles/{vehicle}/history/": answer });
    return onTheBench(<History compared={[3]} onCompare={vi.fn()} />, {}, present);
  };

  it("goes back to the whole state of then, but not to what is there already", async () => {
    const bench = history([entry(5, 3), entry(3, null, { name: "wide wheels" })]);
    expect(await screen.findByText(/kept as “wide wheels”/)).toBeTruthy();
    expect(screen.getAllByText("Back to this")).toHaveLength(1);
    await press("Back to this");
    await waitFor(() => expect(teethOf(bench.document())).toMatchObject({ driven_teeth: 53 }));
  });

  it("takes one change back and leaves what was changed elsewhere since", async () => {
    const present = withValue(withValue(DOCUMENTS.plain, DRIVEN, 55), DRIVER, 17);
    const bench = history([entry(5, 3)], present);
    await press("Take back");
    await waitFor(() =>
      expect(teethOf(bench.document())).toMatchObject({ driven_teeth: 53, driver_teeth: 17 }),
    );
  });

  it("does not take back what was changed again", async () => {
    const bench = history([entry(5, 3)], withValue(DOCUMENTS.plain, DRIVEN, 61));
    await press("Take back");
    expect((await screen.findByRole("alert")).textContent).toMatch(/changed again since/);
    expect(bench.edit.edit).not.toHaveBeenCalled();
  });

  it("asks further back from behind the last one", async () => {
    const pages = [[entry(9, 7), entry(7, 4)], [entry(4, null)]];
    history(() => pages.shift());
    await press("Further back");
    expect(await screen.findByText("change 4")).toBeTruthy();
    await waitFor(() => expect(screen.queryByText("Further back")).toBeNull());
  });

  it("ticks what is compared", async () => {
    history([entry(5, 3), entry(3, null)]);
    const ticks = await screen.findAllByRole("checkbox");
    expect(ticks.map((tick) => (tick as HTMLInputElement).checked)).toEqual([false, true]);
  });
});

describe("kept revisions", () => {
  const KEPT = [
    { number: 8, name: "", author: "fen", summary: "", saved_at: "2026-11-28T10:00:00Z" },
    {
      number: 4,
      name: "before the mud",
      author: null,
      summary: "teeth 12 → 14",
      saved_at: "2026-11-27T10:00:00Z",
    },
  ];
  const revisions = (answers: Record<string, unknown> = {}) => {
    const calls = serving({ ...asked, "GET /api/vehicles/{vehicle}/revisions/": KEPT, ...answers });
    return { calls, ...onTheBench(<Revisions compared={[]} onCompare={vi.fn()} />) };
  };

  it("are those with a name, and are put on the bench", async () => {
    const { document } = revisions();
    expect(await screen.findByText(/teeth 12 → 14 · somebody/)).toBeTruthy();
    expect(screen.getAllByRole("checkbox")).toHaveLength(1);
    fireEvent.click(screen.getByLabelText("Put on the bench: before the mud"));
    await waitFor(() => expect(teethOf(document())).toMatchObject({ driven_teeth: 54 }));
  });

  it("get a name of the newest state, which stays typed where it is refused", async () => {
    const answers = [new Refuses({ detail: "Too many are kept." }), undefined];
    const { calls } = revisions({
      "PATCH /api/vehicles/{vehicle}/revisions/{number}/": () => answers.shift(),
    });
    const name = (await screen.findByLabelText("Name of this state")) as HTMLInputElement;
    await screen.findByText("before the mud");
    fireEvent.change(name, { target: { value: " after the mud " } });
    await press("Keep this state");
    expect((await screen.findByRole("alert")).textContent).toBe("Too many are kept.");
    expect(name.value).toBe(" after the mud ");
    await press("Keep this state");
    await waitFor(() => expect(name.value).toBe(""));
    expect(calls.map((call) => [call.path.number, call.body])).toEqual([
      [8, { name: "after the mud" }],
      [8, { name: "after the mud" }],
    ]);
  });
});
