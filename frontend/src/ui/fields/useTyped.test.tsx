import { act, renderHook } from "@testing-library/react";
import { expect, it } from "vitest";
import { useTyped } from "./useTyped";

const field = (value: string) => renderHook(({ value }) => useTyped(value), { initialProps: { value } });

it("follows its value, and what has become of its own text", () => {
  const { result, rerender } = field("12 mm");
  rerender({ value: "14 mm" });
  expect(result.current.text).toBe("14 mm");
  act(() => result.current.type("15"));
  act(() => result.current.taken());
  rerender({ value: "15 mm" });
  expect(result.current.text).toBe("15 mm");
});

it("keeps what was typed on while its own value came back late", () => {
  const { result, rerender } = field("1800 7");
  act(() => result.current.type(""));
  act(() => result.current.taken());
  act(() => result.current.type("16"));
  rerender({ value: "" });
  expect(result.current.text).toBe("16");
  act(() => result.current.taken());
  rerender({ value: "16 rpm" });
  expect(result.current.text).toBe("16 rpm");
});
