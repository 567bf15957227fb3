import { act, renderHook } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { api } from "./client";
import { back, lost, useConnection, whenBack } from "./connection";

/** Ask once, and be answered so. */
async function asked(answer: number | Error) {
  const fetch = async () => {
    if (answer instanceof Error) throw answer;
    return new Response("{}", { status: answer, headers: { "Content-Type": "application/json" } });
  };
  await act(() =>
    api.GET("/api/session/", { baseUrl: "http://localhost", fetch }).then(
      () => undefined,
      () => undefined,
    ),
  );
}

const connection = () => renderHook(useConnection).result;

test("a request that comes to nothing is no answer, and so is what a host says of a server that is down", async () => {
  const state = connection();
  await asked(new TypeError("Failed to fetch"));
  expect(state.current).toBe("no answer");
  await asked(200);
  expect(state.current).toBe("fine");
  await asked(502);
  expect(state.current).toBe("no answer");
  await asked(500);
  expect(state.current).toBe("fine");
});

test("what the page itself takes back says nothing of the connection", async () => {
  const state = connection();
  await asked(new DOMException("taken back", "AbortError"));
  expect(state.current).toBe("fine");
});

test("with the first answer all that waits tries again", async () => {
  const again = vi.fn();
  const forget = whenBack(again);
  await asked(new TypeError("Failed to fetch"));
  expect(again).not.toHaveBeenCalled();
  await asked(200);
  expect(again).toHaveBeenCalledOnce();
  forget();
});

test("whoever is signed out stays so until somebody signs in, whatever the network does", async () => {
  const state = connection();
  act(lost);
  await asked(new TypeError("Failed to fetch"));
  await asked(200);
  act(() => void window.dispatchEvent(new Event("online")));
  expect(state.current).toBe("signed out");
  act(back);
  expect(state.current).toBe("fine");
});
