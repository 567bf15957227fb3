import { MutationObserver } from "@tanstack/react-query";
import { afterEach, expect, test, vi } from "vitest";
import { RefusedError } from "./client";
import { makeQueries } from "./queries";

afterEach(() => {
  vi.useRealTimers();
  window.dispatchEvent(new Event("online"));
});

test("a computer without a network still asks the server that runs on it", async () => {
  const queries = makeQueries();
  window.dispatchEvent(new Event("offline"));
  expect(await queries.fetchQuery({ queryKey: ["here"], queryFn: async () => "answer" })).toBe("answer");
  const change = new MutationObserver(queries, { mutationFn: async (words: string) => `${words} done` });
  expect(await change.mutate("it is")).toBe("it is done");
});

test("what was not answered is asked again, what was refused is not", async () => {
  vi.useFakeTimers();
  const queries = makeQueries();
  const tries = async (error: Error) => {
    const ask = vi.fn(() => Promise.reject(error));
    const asked = queries
      .fetchQuery({ queryKey: [error.message], queryFn: ask })
      .catch(() => ask.mock.calls.length);
    await vi.advanceTimersByTimeAsync(200_000);
    return asked;
  };
  expect(await tries(new RefusedError({ detail: "no" }, 403))).toBe(1);
  expect(await tries(new RefusedError({ detail: "busy" }, 503))).toBe(7);
  expect(await tries(new TypeError("nothing there"))).toBe(7);
});
