import { act, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { onTheBench } from "../../fixtures";
import { Refuses, serving } from "../../fixtures/server";
import { type Searches, useSearches } from "./useSearches";

const LIST = "GET /api/workshops/{workshop}/searches/";
const ONE = "GET /api/searches/{search}/";
const START = "POST /api/workshops/{workshop}/searches/";
const CANCEL = "PATCH /api/searches/{search}/";

const search = (id: string, state: string) => ({ id, state, meeting: null });
const answer = (id: string, state: string, whole = true) => ({
  search: search(id, state),
  options: { whole, rows: [id] },
});

function station(answers: Record<string, unknown>) {
  let searches: Searches | null = null;
  const Station = () => {
    searches = useSearches();
    return null;
  };
  const calls = serving({ [LIST]: [], ...answers });
  onTheBench(<Station />);
  return { calls, now: () => searches as unknown as Searches };
}

describe("searches", () => {
  it("show the newest, and another one when it is opened", async () => {
    const { now } = station({
      [LIST]: [search("s2", "done"), search("s1", "done")],
      [ONE]: ({ path }: { path: { search: string } }) => answer(path.search, "done"),
    });
    await waitFor(() => expect(now().shown?.search.id).toBe("s2"));
    act(() => now().open("s1"));
    await waitFor(() => expect(now().shown?.search.id).toBe("s1"));
  });

  it("show the first rows at once, and the others after them", async () => {
    const { calls, now } = station({ [START]: answer("s", "done", false), [ONE]: answer("s", "done") });
    act(() => now().start({ parts: [] }));
    await waitFor(() => expect(now().shown?.options?.whole).toBe(true));
    expect(calls[0]?.body).toEqual({ request: { parts: [] }, vehicle: "v" });
  });

  it("are looked at while they run, until they have ended", async () => {
    const states = ["running", "running", "done"];
    const { now } = station({
      [START]: answer("s", "waiting"),
      [ONE]: () => answer("s", states.shift() ?? "done"),
    });
    act(() => now().start({}));
    await waitFor(() => expect(now().shown?.search.state).toBe("waiting"));
    await waitFor(() => expect(now().shown?.search.state).toBe("done"), { timeout: 5000 });
    expect(states).toEqual([]);
  });

  it("are cancelled, or say why they go on", async () => {
    const answers = [new Refuses({ detail: "You may look, not change." }, 403), search("s", "cancelled")];
    let state = "running";
    const { now } = station({
      [LIST]: [search("s", "running")],
      [ONE]: () => answer("s", state),
      [CANCEL]: () => answers.shift(),
    });
    await waitFor(() => expect(now().shown?.search.id).toBe("s"));
    act(() => now().cancel());
    await waitFor(() => expect(now().trouble?.message).toBe("You may look, not change."));
    state = "cancelled";
    act(() => now().cancel());
    await waitFor(() => expect(now().shown?.search.state).toBe("cancelled"));
    expect(now().trouble).toBeNull();
  });

  it("that are refused say so, and the one before stays on display", async () => {
    const { now } = station({
      [LIST]: [search("s", "done")],
      [ONE]: answer("s", "done"),
      [START]: new Refuses({ detail: "Two searches run already." }, 429),
    });
    await waitFor(() => expect(now().shown?.search.id).toBe("s"));
    act(() => now().start({}));
    await waitFor(() => expect(now().trouble?.message).toBe("Two searches run already."));
    expect(now().shown?.search.id).toBe("s");
  });
});
