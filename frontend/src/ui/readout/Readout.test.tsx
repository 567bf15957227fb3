import { fireEvent, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { onTheBench, PLAIN } from "../../fixtures";
import { Readout } from "./Readout";

test("each value opens its working, and shows what the mark changed", () => {
  const spy = vi.fn();
  const { container } = onTheBench(
    <Readout gauges={PLAIN.gauges} uncertainties={null} stale={false} onAsk={spy} />,
  );
  const top = container.querySelector("[data-gauge=top_speed]");
  expect(top?.querySelector("[data-change]")?.textContent).toMatch(/^\+0\.\d+$/);
  expect(top?.textContent).toContain("at least 8 m/s");
  fireEvent.click(screen.getByRole("button", { name: /Top speed/ }));
  expect(spy).toHaveBeenCalledWith({ measure: "top_speed", at: null });
});

test("a value that is not up to date is told so", () => {
  const { container } = onTheBench(
    <Readout gauges={PLAIN.gauges} uncertainties={null} stale onAsk={vi.fn()} />,
  );
  expect(container.querySelector("[data-readout]")?.getAttribute("aria-busy")).toBe("true");
});

test("a measure without a value has none to ask about", () => {
  const [gauge] = PLAIN.gauges;
  if (!gauge) throw new Error("a gauge is wanted");
  const none = { ...gauge, value: null, mark: null };
  const { container } = onTheBench(
    <Readout gauges={[none]} uncertainties={null} stale={false} onAsk={vi.fn()} />,
  );
  expect(container.querySelector("[data-value]")?.hasAttribute("disabled")).toBe(true);
  expect(container.querySelector("[data-value]")?.textContent).toBe("–");
});

test("a band stands under a value that has no target", () => {
  const at = PLAIN.gauges.findIndex((g) => g.target === null);
  const uncertainties = {
    first: "",
    guesses: [],
    gauges: PLAIN.gauges.map((g) => ({
      measure: g.measure,
      target: g.target,
      low: 1,
      high: 2,
      path: "",
      share: 0,
      words: "",
    })),
  };
  const { container } = onTheBench(
    <Readout gauges={PLAIN.gauges} uncertainties={uncertainties} stale={false} onAsk={vi.fn()} />,
  );
  const gauge = container.querySelectorAll("[data-gauge]")[at];
  expect(gauge?.textContent).toMatch(/1\.00 to 2\.00|1000 to 2000|100 to 200/);
  expect(container.querySelectorAll("[data-band]").length).toBeGreaterThan(0);
});
