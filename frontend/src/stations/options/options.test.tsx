import { fireEvent, screen, waitFor } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { DOCUMENTS, OPTIONS, onTheBench } from "../../fixtures";
import { Field } from "./Field";
import { bestEdge, spanAround, walk } from "./field";
import { OptionDetail } from "./OptionDetail";
import { OptionList, percent } from "./OptionList";
import { NO_WISHES, requestOf, toggled } from "./request";

const spots = [
  { index: 0, x: 1, y: 5 },
  { index: 1, x: 2, y: 4 },
  { index: 2, x: 1.5, y: 3 },
  { index: 3, x: 3, y: 1 },
];

describe("the best edge", () => {
  it("holds what no other beats in both, in either direction", () => {
    expect(bestEdge(spots, 1, 1).map((s) => s.index)).toEqual([0, 1, 3]);
    expect(bestEdge(spots, -1, 1).map((s) => s.index)).toEqual([0]);
    expect(bestEdge(spots, -1, -1).map((s) => s.index)).toEqual([0, 2, 3]);
  });

  it("is walked along, and reached from beside it", () => {
    const edge = bestEdge(spots, 1, 1);
    expect(walk(spots, edge, 1, 1)).toBe(3);
    expect(walk(spots, edge, 3, 1)).toBe(3);
    expect(walk(spots, edge, 2, 1)).toBe(1);
    expect(walk(spots, edge, 2, -1)).toBe(0);
  });

  it("lies in a span around what matters", () => {
    const [low, high] = spanAround([10, 12], [1, 11, 100]);
    expect(low).toBeCloseTo(7.84);
    expect(high).toBeCloseTo(14.16);
  });
});

describe("the request", () => {
  it("says only what was chosen", () => {
    const made = requestOf(DOCUMENTS.plain, { ...NO_WISHES, layouts: [[{ kind: "gear" }]] });
    expect(made.layouts).toEqual([{ stages: [{ kind: "gear" }] }]);
    expect(made.limits).toEqual({ owned_only: false });
  });

  it("asks for what goes on the plate and for lengths at hand only where that is wanted", () => {
    expect(requestOf(DOCUMENTS.plain, NO_WISHES)).not.toHaveProperty("requires");
    const made = requestOf(DOCUMENTS.plain, { ...NO_WISHES, onPlate: true });
    expect(made.requires).toEqual({ standing: false, plate: true, lengths_at_hand: false });
  });

  it("takes limits as numbers, and leaves what is none for the core to refuse", () => {
    const wishes = { ...NO_WISHES, price: "12,5", toBuy: "few", ratioFrom: "4", counts: "1 2" };
    const made = requestOf(DOCUMENTS.plain, {
      ...wishes,
      layouts: [[{ kind: "gear" }]],
      heads: { sources: ["m1"], supplies: null, wheels: null },
    });
    expect(made.limits).toEqual({
      owned_only: false,
      price_at_most: 12.5,
      parts_to_buy_at_most: "few",
      overall_ratio: [4, 1000000],
    });
    expect(made.layouts).toEqual([{ stages: [{ kind: "gear" }], sources: ["m1"], count: [1, 2] }]);
  });

  it("has a layout in or out", () => {
    const one = toggled([], [{ kind: "gear" }]);
    expect(toggled(one, [{ kind: "gear" }])).toEqual([]);
    expect(toggled(one, [{ kind: "belt" }])).toHaveLength(2);
  });
});

describe("options on the screen", () => {
  const list = (chosen = 0) => {
    const calls = { onChoose: vi.fn(), onTake: vi.fn(), onPin: vi.fn() };
    onTheBench(
      <OptionList options={OPTIONS} chosen={chosen} pinned={new Set([1])} sound={false} {...calls} />,
    );
    return calls;
  };

  it("are walked, taken and pinned by key", async () => {
    const { onChoose, onTake, onPin } = list(1);
    const box = screen.getByRole("listbox");
    for (const key of ["ArrowDown", "ArrowUp", "Enter", "p"]) fireEvent.keyDown(box, { key });
    expect(onChoose.mock.calls).toEqual([[2], [0]]);
    expect(onTake).toHaveBeenCalledWith(1);
    expect(onPin).toHaveBeenCalledWith(1);
    // What lies below the list's edge follows the first paint.
    await waitFor(() => expect(screen.getAllByRole("option")).toHaveLength(OPTIONS.listed));
  });

  it("tell what changes, what it costs, and how it stands against the present", () => {
    const onTake = vi.fn();
    const shown = onTheBench(
      <OptionDetail options={OPTIONS} index={0} pinned={false} onTake={onTake} onPin={vi.fn()} />,
    );
    const text = shown.container.textContent ?? "";
    expect(text).toContain("Option 1");
    expect(text).toMatch(/Buy for|All of it is owned/);
    fireEvent.click(screen.getByRole("button", { name: "Put on the bench" }));
    expect(onTake).toHaveBeenCalled();
  });

  it("stand in a field whose chosen point is spoken", () => {
    const onChoose = vi.fn();
    const shown = onTheBench(<Field options={OPTIONS} chosen={0} onChoose={onChoose} />);
    expect(shown.container.querySelectorAll("[data-option]").length).toBeGreaterThan(3);
    const field = screen.getByRole("group", { name: /Option 1/ });
    fireEvent.keyDown(field, { key: "ArrowRight" });
    expect(onChoose).toHaveBeenCalledTimes(1);
  });

  it("margins are shares with a sign", () => {
    expect([0.0864, -0.5, 3.81, null].map(percent)).toEqual(["+8.6 %", "−50 %", "+381 %", "–"]);
  });
});
