import { renderHook } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { recall, useKeptSteps } from "./steps";

test("steps outlive a reload, if the document is still the one they led to", () => {
  vi.useFakeTimers();
  renderHook(() => useKeptSteps("v", { past: [{ n: 1 }], present: { n: 2 }, future: [{ n: 3 }] }));
  vi.runAllTimers();
  expect(recall("v", { n: 2 })).toEqual({ past: [{ n: 1 }], present: { n: 2 }, future: [{ n: 3 }] });
  expect(recall("v", { n: 9 })).toEqual({ past: [], present: { n: 9 }, future: [] });
  expect(recall("another", { n: 2 }).past).toEqual([]);
});

test("what cannot be read is not undone", () => {
  sessionStorage.setItem("ydrometer-steps-v", "{half");
  expect(recall("v", { n: 1 })).toEqual({ past: [], present: { n: 1 }, future: [] });
});
