import { act, renderHook } from "@testing-library/react";
import { beforeEach, expect, test, vi } from "vitest";
import { api } from "../../../api/client";
import { useListened } from "./useListened";

beforeEach(() => vi.useFakeTimers());

/** Answers that come when they are told to, in the order of the questions. */
function server() {
  const answers: ((status: number) => void)[] = [];
  const spy = vi.spyOn(api, "POST").mockImplementation(
    ((_: string, { body }: { body: { lines: string[] } }) =>
      new Promise((answered) => {
        answers.push((status) => {
          const response = new Response(null, { status });
          const data = { runs: body.lines };
          answered(status === 200 ? { data, response } : { error: { detail: "no" }, response });
        });
      })) as never,
  );
  const reply = (status = 200) => act(async () => answers.shift()?.(status));
  return { asked: spy, reply };
}

const passing = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

test("lines that come while one answer is awaited are asked about afterwards, the newest last", async () => {
  const { asked, reply } = server();
  const { result, rerender } = renderHook(({ lines }) => useListened(lines, "10 m"), {
    initialProps: { lines: ["1"] },
  });
  await passing(400);
  rerender({ lines: ["1", "2"] });
  rerender({ lines: ["1", "2", "3"] });
  await passing(2000);
  expect(asked).toHaveBeenCalledTimes(1);
  await reply();
  expect(result.current?.runs).toEqual(["1"]);
  await passing(400);
  await reply();
  expect(result.current?.runs).toEqual(["1", "2", "3"]);
  await passing(5000);
  expect(asked).toHaveBeenCalledTimes(2);
});

test("the last lines are asked about again where no answer came, but not where they are refused", async () => {
  const { asked, reply } = server();
  const { result, rerender } = renderHook(({ lines }) => useListened(lines, "10 m"), {
    initialProps: { lines: ["1"] },
  });
  await passing(400);
  await reply(503);
  await passing(1600);
  await reply();
  expect(result.current?.runs).toEqual(["1"]);
  rerender({ lines: ["1", "x"] });
  await passing(400);
  await reply(400);
  await passing(60_000);
  expect(asked).toHaveBeenCalledTimes(3);
  expect(result.current?.runs).toEqual(["1"]);
});

test("nothing is left of what was heard before", async () => {
  const { reply } = server();
  const { result, rerender } = renderHook(({ lines }) => useListened(lines, "10 m"), {
    initialProps: { lines: ["1"] },
  });
  await passing(400);
  rerender({ lines: [] as string[] });
  await reply();
  expect(result.current).toBeNull();
});
