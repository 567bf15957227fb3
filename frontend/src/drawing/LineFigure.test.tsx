import { fireEvent, screen } from "@testing-library/react";
import { beforeAll, describe, expect, it, vi } from "vitest";
import { onTheBench, PLAIN, SIX, WHEEL } from "../fixtures";
import { LineFigure } from "./LineFigure";

beforeAll(() => {
  Element.prototype.setPointerCapture = vi.fn();
});

function figure(live = PLAIN, more: Partial<Parameters<typeof LineFigure>[0]> = {}) {
  const ways = {
    onSelect: vi.fn(),
    onStep: vi.fn(),
    onSweep: vi.fn(),
    onTeeth: vi.fn(),
    onKey: vi.fn(),
    onHold: vi.fn(),
    onRoom: vi.fn(),
  };
  const shown = onTheBench(
    <LineFigure
      line={live.view.line}
      mark={live.mark}
      flow={live.flows.at(-1)}
      selected={WHEEL}
      readOnly={false}
      {...ways}
      {...more}
    />,
  );
  return { ...shown, ...ways };
}

describe("what can be reached", () => {
  it("is every source, wheel and box, in the order of power", () => {
    const { container } = figure(SIX);
    const stops = [...container.querySelectorAll("[data-stop]")].map((e) => e.getAttribute("aria-label"));
    expect(stops.slice(0, 3)).toEqual(["Motor and supply", "driver gear", "driven gear"]);
    expect(stops).toContain("Motor and supply, branch 2");
    expect(stops.slice(-2)).toEqual(["driven sprocket", "Wheel on the ground"]);
    expect(new Set(stops).size).toBeGreaterThan(8);
  });

  it("tells its size to a screen reader", () => {
    figure();
    expect(screen.getByRole("spinbutton", { name: "driver gear" }).getAttribute("aria-valuetext")).toBe(
      "15 teeth",
    );
  });

  it("is changed by arrows, five at a time by the page keys, any size with Alt", () => {
    const { onStep } = figure();
    const wheel = screen.getByRole("spinbutton", { name: "driver gear" });
    fireEvent.keyDown(wheel, { key: "ArrowUp" });
    fireEvent.keyDown(wheel, { key: "PageDown" });
    fireEvent.keyDown(wheel, { key: "ArrowDown", altKey: true });
    expect(onStep.mock.calls.map(([wheel, by, any]) => [wheel.member, by, any])).toEqual([
      ["driver", 1, false],
      ["driver", -5, false],
      ["driver", -1, true],
    ]);
  });

  it("is chosen by a click on what is painted", () => {
    const { container, onSelect } = figure();
    const body = container.querySelector("[data-body='drive.stages[0] driven']");
    if (body) fireEvent.click(body);
    expect(onSelect).toHaveBeenLastCalledWith({ path: "drive.stages[0]", member: "driven" });
  });
});

describe("what is shown", () => {
  it("has each shaft's figures, and what each stage loses", () => {
    const { container } = figure();
    const shafts = [...container.querySelectorAll("[data-shaft]")];
    expect(shafts).toHaveLength(3);
    expect(shafts[0]?.textContent).toContain("Motor");
    expect(shafts[0]?.textContent).toMatch(/−[\d.]+ W/);
    expect(shafts[2]?.textContent).toContain("Wheel");
  });

  it("names sources of several branches, a strip each", () => {
    const { container } = figure(SIX);
    const names = [...container.querySelectorAll("[data-shaft]")].map((e) => e.textContent ?? "");
    expect(names.some((text) => text.startsWith("Motor 1"))).toBe(true);
    expect(names.some((text) => text.startsWith("Motor 2"))).toBe(true);
  });

  it("dashes the mark over the drawing", () => {
    expect(figure().container.querySelectorAll("[data-mark] circle").length).toBeGreaterThan(3);
    expect(figure(PLAIN, { mark: null }).container.querySelector("[data-mark] circle")).toBeNull();
  });

  it("folds into the rows that the core made", () => {
    const rows = SIX.view.line.rows.length;
    expect(rows).toBeGreaterThan(1);
    const svg = figure(SIX).container.querySelector("[data-drawing]");
    const alone = figure().container.querySelector("[data-drawing]");
    expect(Number(svg?.getAttribute("height"))).toBeGreaterThan(Number(alone?.getAttribute("height")));
  });

  it("says how much room there is for a row", () => {
    expect(figure().onRoom).toHaveBeenCalledWith(expect.any(Number));
  });
});

describe("the rim", () => {
  it("is pulled in whole teeth, as one gesture, and holds the heavy painting meanwhile", () => {
    const { container, onTeeth, onHold } = figure();
    const rim = container.querySelector("[data-rim]");
    if (!rim) throw new Error("a rim is wanted");
    // jsdom knows no pointers; a mouse event of the same name carries the place.
    const pointer = (type: string, x: number, y: number) =>
      fireEvent(rim, new MouseEvent(type, { bubbles: true, clientX: x, clientY: y }));
    pointer("pointerdown", 0, 0);
    expect(onHold).toHaveBeenLastCalledWith(true);
    pointer("pointermove", 40, 40);
    expect(container.querySelector("[data-dragged]")).not.toBeNull();
    pointer("pointerup", 40, 40);
    expect(onHold).toHaveBeenLastCalledWith(false);
    expect(container.querySelector("[data-dragged]")).toBeNull();
    const gestures = new Set(onTeeth.mock.calls.map(([, , gesture]) => gesture));
    expect(gestures.size).toBe(1);
    for (const [, teeth] of onTeeth.mock.calls) expect(Number.isInteger(teeth) && teeth >= 5).toBe(true);
  });

  it("cannot be pulled by who may only look", () => {
    expect(figure(PLAIN, { readOnly: true }).container.querySelector("[data-rim]")).toBeNull();
  });
});
