import { act, renderHook } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { useOutbox } from "./useOutbox";

test("what is said goes out in its order, and once", async () => {
  const deliver = vi.fn(async () => undefined);
  const { result } = renderHook(() => useOutbox<string>("box", deliver));
  await act(async () => {
    result.current.add("one");
    result.current.add("two");
  });
  expect(deliver.mock.calls.flat(2)).toEqual(["one", "two"]);
  expect(result.current.waiting).toEqual([]);
  expect(localStorage.getItem("box")).toBeNull();
});

test("without a connection it waits on the device, and goes out when there is one again", async () => {
  let broken = true;
  const deliver = vi.fn(async () => {
    if (broken) throw new Error("no connection");
  });
  const first = renderHook(() => useOutbox<string>("box", deliver));
  await act(async () => first.result.current.add("one"));
  expect(first.result.current.waiting).toEqual(["one"]);
  first.unmount();
  const again = renderHook(() => useOutbox<string>("box", deliver));
  await act(async () => undefined);
  expect(again.result.current.waiting).toEqual(["one"]);
  broken = false;
  await act(async () => {
    window.dispatchEvent(new Event("online"));
  });
  expect(again.result.current.waiting).toEqual([]);
});
