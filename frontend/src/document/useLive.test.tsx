import { act, renderHook, waitFor } from "@testing-library/react";
import { beforeEach, expect, test, vi } from "vitest";
import type { DesignDocument } from "./document";
import { useLive } from "./useLive";

type Answer = { data?: unknown; error?: unknown; response: { status: number } };
const asked: { name: string; answer: (answer: Answer | Error) => void }[] = [];

vi.mock("../api/client", () => ({
  api: {
    POST: (_: string, { body }: { body: { document: { name: string } } }) =>
      new Promise((resolve, reject) => {
        asked.push({
          name: body.document.name,
          answer: (answer) => (answer instanceof Error ? reject(answer) : resolve(answer)),
        });
      }),
  },
}));

const made = new Map<string, DesignDocument>();
/** The same object for the same name, as a document is the same until it is changed. */
function design(name: string): DesignDocument {
  const found = made.get(name) ?? ({ name } as unknown as DesignDocument);
  made.set(name, found);
  return found;
}
const live = (name: string): Answer => ({ data: { name }, response: { status: 200 } });
const start = () =>
  renderHook(({ name }) => useLive(design(name), null, WISH, READABLE, null), {
    initialProps: { name: "one" },
  });
const WISH = { selected: null };
const READABLE = design("before");

beforeEach(() => {
  asked.length = 0;
});

test("one question at a time, and the last one always wins", async () => {
  const { result, rerender } = start();
  await waitFor(() => expect(asked.map((a) => a.name)).toEqual(["one"]));
  for (const name of ["two", "three", "four"]) rerender({ name });
  expect(asked).toHaveLength(1);
  await act(async () => asked[0]?.answer(live("one")));
  // What was typed in between is never asked for: only the newest is.
  expect(asked.map((a) => a.name)).toEqual(["one", "four"]);
  await act(async () => asked[1]?.answer(live("four")));
  expect(result.current.live).toEqual({ name: "four" });
  expect(result.current.of).toEqual({ name: "four" });
});

test("faults leave the figures that were there", async () => {
  const { result, rerender } = start();
  await waitFor(() => expect(asked).toHaveLength(1));
  await act(async () => asked[0]?.answer(live("one")));
  rerender({ name: "two" });
  const faults = [{ path: "vehicle.mass", problem: "missing", remedy: "give it" }];
  await act(async () => asked[1]?.answer({ error: { detail: "no", faults }, response: { status: 400 } }));
  expect(result.current.live).toEqual({ name: "one" });
  expect(result.current.faults).toEqual(faults);
});

test("what was answered before is there at once, and is not asked again", async () => {
  const { result, rerender } = start();
  await waitFor(() => expect(asked).toHaveLength(1));
  await act(async () => asked[0]?.answer(live("one")));
  rerender({ name: "two" });
  await act(async () => asked[1]?.answer(live("two")));
  rerender({ name: "one" });
  expect(result.current.live).toEqual({ name: "one" });
  expect(result.current.of).toBe(design("one"));
  expect(asked).toHaveLength(2);
});

test("what is asked ahead waits for its turn, and is there when it is wanted", async () => {
  const { result, rerender } = start();
  await waitFor(() => expect(asked).toHaveLength(1));
  await act(async () => asked[0]?.answer(live("one")));
  act(() => result.current.ahead([design("two"), design("three"), design("four")]));
  expect(asked.map((a) => a.name)).toEqual(["one", "two", "three"]);
  await act(async () => asked[1]?.answer(live("two")));
  expect(asked.map((a) => a.name)).toEqual(["one", "two", "three", "four"]);
  expect(result.current.live).toEqual({ name: "one" });
  rerender({ name: "two" });
  expect(result.current.live).toEqual({ name: "two" });
  // On its way already: it is waited for.
  rerender({ name: "three" });
  expect(asked).toHaveLength(4);
  await act(async () => asked[2]?.answer(live("three")));
  expect(result.current.live).toEqual({ name: "three" });
});

test("an answer that comes late does not take the place of a newer one", async () => {
  const { result, rerender } = start();
  await waitFor(() => expect(asked).toHaveLength(1));
  await act(async () => asked[0]?.answer(live("one")));
  rerender({ name: "two" });
  rerender({ name: "one" });
  await act(async () => asked[1]?.answer(live("two")));
  expect(result.current.live).toEqual({ name: "one" });
});

test("a lost connection is told", async () => {
  const { result } = start();
  await waitFor(() => expect(asked).toHaveLength(1));
  await act(async () => asked[0]?.answer(new Error("offline")));
  expect(result.current.trouble).toContain("No connection");
});
