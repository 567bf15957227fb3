import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { back } from "../api/connection";
import { DOCUMENTS } from "../fixtures";
import { type Call, Refuses, serving } from "../fixtures/server";
import { type DesignDocument, withValue } from "./document";
import { readDraft } from "./draft";
import type { Base } from "./seen";
import { useAutosave } from "./useAutosave";

const DRIVER = "drive.branches[0].stages[0].driver_teeth";
const DRIVEN = "drive.branches[0].stages[0].driven_teeth";
const ADDRESS = "POST /api/vehicles/{vehicle}/revisions/";
const OWNER = { account: "tester", vehicle: "v", tab: "t" };
const FIRST: Base = { number: 3, document: DOCUMENTS.plain, saved_at: "2026-11-30T08:00:00Z" };

const driver = (teeth: number, of: DesignDocument = DOCUMENTS.plain) => withValue(of, DRIVER, teeth);
const saved = (number: number) => ({ number, saved_at: `2026-11-30T08:00:0${number}Z` });
/** In small steps: within one of them React does not paint. */
async function passing(ms: number) {
  for (let left = ms; left > 0; left -= STEP_MS)
    await act(() => vi.advanceTimersByTimeAsync(Math.min(left, STEP_MS)));
}
const STEP_MS = 100;
const sent = (calls: Call[]) =>
  calls.map(({ body }) => {
    const { base, document } = body as { base: number; document: DesignDocument };
    return [base, document.drive.branches?.[0]?.stages?.[0]?.driver_teeth];
  });

beforeEach(() => {
  vi.useFakeTimers();
  // The clock of a page that was just opened stands at 0, which no hand is quick enough to see.
  vi.advanceTimersByTime(1);
});

/** A page on which a document is typed; what is brought together is put on it, as the station does. */
function page(answer: unknown, readOnly = false) {
  const calls = serving({ [ADDRESS]: answer });
  const merged = vi.fn();
  const queries = new QueryClient();
  const shown = renderHook(({ document }) => useAutosave(OWNER, document, FIRST, merged, readOnly), {
    initialProps: { document: DOCUMENTS.plain },
    wrapper: ({ children }) => <QueryClientProvider client={queries}>{children}</QueryClientProvider>,
  });
  merged.mockImplementation((document: DesignDocument) => shown.rerender({ document }));
  return { calls, merged, type: (document: DesignDocument) => shown.rerender({ document }), ...shown };
}

/** Somebody else's revision in the way. */
const theirs = (document: DesignDocument, number = 4) =>
  new Refuses(
    {
      detail: "Somebody has saved meanwhile.",
      theirs: { number, document, saved_at: "2026-11-30T08:00:30Z", author: "fen" },
    } as never,
    409,
  );

describe("what is typed", () => {
  it("is kept on the device at once, saved when the hand rests, and then gone from the device", async () => {
    const { calls, result, type } = page(saved(4));
    expect(result.current.state).toEqual({ kind: "saved", at: FIRST.saved_at });
    type(driver(17));
    expect(readDraft("tester", "v", "t")).toMatchObject({ base: 3, document: driver(17) });
    await passing(300);
    type(driver(18));
    await passing(500);
    expect(calls).toEqual([]);
    await passing(200);
    expect(sent(calls)).toEqual([[3, 18]]);
    expect(result.current.state).toEqual({ kind: "saved", at: saved(4).saved_at });
    expect(readDraft("tester", "v", "t")).toBeNull();
  });

  it("is saved every few seconds though the hand never rests", async () => {
    const { calls, type } = page(saved(4));
    for (let teeth = 20; teeth < 33; teeth++) {
      type(driver(teeth));
      await passing(400);
    }
    expect(calls).toHaveLength(1);
  });

  it("while it is being saved is saved next, upon that", async () => {
    const answers: ((made: object) => void)[] = [];
    const { calls, result, type } = page(() => new Promise((made) => answers.push(made)));
    type(driver(17));
    await passing(700);
    type(driver(18));
    await passing(2000);
    expect(sent(calls)).toEqual([[3, 17]]);
    await act(async () => answers.shift()?.(saved(4)));
    expect(readDraft("tester", "v", "t")).not.toBeNull();
    await passing(2000);
    await act(async () => answers.shift()?.(saved(5)));
    expect(sent(calls)[1]).toEqual([4, 18]);
    expect(result.current.base.current.number).toBe(5);
  });

  it("and taken back is not saved at all", async () => {
    const { calls, type } = page(saved(4));
    type(driver(17));
    type(DOCUMENTS.plain);
    await passing(6000);
    expect(calls).toEqual([]);
    expect(readDraft("tester", "v", "t")).toBeNull();
  });

  it("is never saved for who may only look", async () => {
    const { calls, type } = page(saved(4), true);
    type(driver(17));
    await passing(6000);
    expect(calls).toEqual([]);
  });
});

describe("somebody else's revision", () => {
  it("of other values is brought together with one's own, and that is saved upon it", async () => {
    const answers = [theirs(withValue(DOCUMENTS.plain, DRIVEN, 60)), saved(5)];
    const { calls, merged, type } = page(() => answers.shift());
    type(driver(17));
    await passing(700);
    const both = driver(17, withValue(DOCUMENTS.plain, DRIVEN, 60));
    expect(merged.mock.calls[0]?.[0]).toEqual(both);
    await passing(700);
    expect(sent(calls)).toEqual([
      [3, 17],
      [4, 17],
    ]);
  });

  it("of the same value is asked about, and nothing is saved until that is answered", async () => {
    const answers = [theirs(driver(12)), saved(5)];
    const { calls, result, type } = page(() => answers.shift());
    type(driver(17));
    await passing(700);
    expect(result.current.state.kind).toBe("conflict");
    type(driver(18));
    await passing(6000);
    expect(calls).toHaveLength(1);
    expect(readDraft("tester", "v", "t")?.document).toEqual(driver(18));
    act(() => result.current.rebase({ number: 4, document: driver(12), saved_at: "" }));
    await passing(700);
    expect(sent(calls)[1]).toEqual([4, 18]);
  });
});

describe("what is in the way of saving", () => {
  it("is tried again with growing pauses where there is no connection", async () => {
    const { calls, result, type } = page(() => {
      throw new TypeError("no connection");
    });
    type(driver(17));
    await passing(700);
    expect(result.current.state).toEqual({ kind: "waiting", why: "no connection; kept on this device" });
    await passing(2200);
    expect(calls).toHaveLength(2);
    await passing(2200);
    expect(calls).toHaveLength(2);
    await passing(1500);
    expect(calls).toHaveLength(3);
    expect(readDraft("tester", "v", "t")?.document).toEqual(driver(17));
  });

  it("is tried again when one has signed in again", async () => {
    const answers = [new Refuses({ detail: "" }, 401), saved(4)];
    const { calls, result, type } = page(() => answers.shift());
    type(driver(17));
    await passing(700);
    expect(result.current.state).toEqual({ kind: "waiting", why: "you are signed out; kept on this device" });
    await passing(60_000);
    expect(calls).toHaveLength(1);
    act(() => back());
    await passing(700);
    expect(result.current.state.kind).toBe("saved");
  });

  it("is told where values cannot be read, and what is typed next is tried", async () => {
    const fault = { path: DRIVER, problem: "is no number of teeth", remedy: "type a whole number" };
    const answers = [new Refuses({ detail: "no", faults: [fault], more: 1 } as never), saved(4)];
    const { result, type } = page(() => answers.shift());
    type(driver(-1));
    await passing(700);
    expect(result.current.state).toMatchObject({
      kind: "waiting",
      why: expect.stringMatching(/^2 values cannot/),
    });
    type(driver(17));
    await passing(700);
    expect(result.current.state.kind).toBe("saved");
  });
});

describe("a page that goes", () => {
  it("hands over what was not saved yet", async () => {
    const { calls, type, unmount } = page(saved(4));
    type(driver(17));
    await passing(100);
    unmount();
    expect(sent(calls)).toEqual([[3, 17]]);
  });

  it("says nothing where all is saved", () => {
    const { calls, unmount } = page(saved(4));
    unmount();
    expect(calls).toEqual([]);
  });

  it("does the same when it is hidden, as a phone does when it is put away", async () => {
    const { calls, type } = page(saved(4));
    type(driver(17));
    vi.spyOn(window.document, "visibilityState", "get").mockReturnValue("hidden");
    await act(async () => void window.document.dispatchEvent(new Event("visibilitychange")));
    expect(sent(calls)).toEqual([[3, 17]]);
  });
});
