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

const design = (name: string) => ({ name }) as unknown as DesignDocument;
const live = (name: string): Answer => ({ data: { name }, response: { status: 200 } });
const start = () =>
  renderHook(({ name }) => useLive(design(name), null, WISH, READABLE), { initialProps: { name: "one" } });
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

test("a lost connection is told", async () => {
  const { result } = start();
  await waitFor(() => expect(asked).toHaveLength(1));
  await act(async () => asked[0]?.answer(new Error("offline")));
  expect(result.current.trouble).toContain("No connection");
});
