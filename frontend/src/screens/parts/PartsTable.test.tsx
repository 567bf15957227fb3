import { fireEvent, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { bin, emptyBin, type PartDocument } from "../../document/bin/bin";
import type { PartKind } from "../../document/bin/cells";
import { onTheBench, PART_KINDS } from "../../fixtures";
import { PartsTable } from "./PartsTable";

const GEARS = PART_KINDS.find((kind) => kind.kind === "gear") as PartKind;
const gear = (teeth: number, owned: number): PartDocument => ({
  id: `g${teeth}`,
  kind: "gear",
  teeth,
  module: "1 mm",
  owned,
});

function table(readOnly = false) {
  const parts = [gear(48, 0), gear(9, 2), gear(14, 1)].map((document) => ({ version: 1, document }));
  const state = bin(emptyBin(), { type: "loaded", parts });
  const dispatch = vi.fn();
  const shown = onTheBench(
    <PartsTable
      kind={GEARS}
      bin={{ state, dispatch, loaded: true, saving: "saved" }}
      readOnly={readOnly}
      tools={null}
    />,
  );
  const ids = () =>
    [...shown.container.querySelectorAll("tr[data-part]")].map((row) => row.getAttribute("data-part"));
  return { ...shown, dispatch, ids };
}

describe("the bin as a table", () => {
  it("is put in order by a column, as numbers, either way and back", () => {
    const { ids } = table();
    const head = screen.getByRole("button", { name: /^teeth/ });
    const seen = [0, 1, 2].map(() => {
      fireEvent.click(head);
      return ids().join();
    });
    expect(seen).toEqual(["g9,g14,g48,next", "g48,g14,g9,next", "g48,g9,g14,next"]);
  });

  it("is filtered by any text and by what is owned", () => {
    const { ids } = table();
    fireEvent.change(screen.getByLabelText(/Find among/), { target: { value: "48 1" } });
    expect(ids()).toEqual(["g48", "next"]);
    fireEvent.change(screen.getByLabelText(/Find among/), { target: { value: "" } });
    fireEvent.click(screen.getByLabelText("owned only"));
    expect(ids()).toEqual(["g9", "g14", "next"]);
  });

  it("takes a cell over when it is left, and not after Escape", () => {
    const { dispatch } = table();
    const owned = screen.getByLabelText("owned of gear 14 1");
    fireEvent.change(owned, { target: { value: "5" } });
    fireEvent.keyDown(owned, { key: "Escape" });
    fireEvent.blur(owned);
    expect(dispatch).not.toHaveBeenCalled();
    fireEvent.change(owned, { target: { value: "5" } });
    fireEvent.blur(owned);
    const after = { ...gear(14, 5) };
    expect(dispatch).toHaveBeenCalledWith({
      type: "edit",
      changes: [{ id: "g14", before: gear(14, 1), after }],
    });
  });

  it("goes down a column with Enter, and begins a part in the last row", () => {
    const { dispatch } = table();
    const first = screen.getByLabelText("teeth of gear 48 1");
    first.focus();
    fireEvent.keyDown(first, { key: "Enter" });
    expect(document.activeElement?.getAttribute("aria-label")).toBe("teeth of gear 9 1");
    const next = screen.getByLabelText("teeth of the next gear");
    fireEvent.change(next, { target: { value: "20" } });
    fireEvent.blur(next);
    const after = { id: "gear-1", kind: "gear", owned: 1, teeth: 20 };
    expect(dispatch).toHaveBeenCalledWith({ type: "edit", changes: [{ id: "gear-1", before: null, after }] });
  });

  it("takes chosen parts out and copies them in one step each", () => {
    const { dispatch } = table();
    fireEvent.click(screen.getByLabelText("Choose gear 9 1"));
    fireEvent.click(screen.getByLabelText("Choose gear 14 1"));
    fireEvent.click(screen.getByRole("button", { name: "Take 2 out" }));
    expect(dispatch.mock.calls[0]?.[0].changes.map((c: { id: string }) => c.id)).toEqual(["g9", "g14"]);
  });

  it("cannot be changed by those who may only look", () => {
    const { ids } = table(true);
    expect(ids()).not.toContain("next");
    expect(screen.getByLabelText<HTMLInputElement>("teeth of gear 9 1").readOnly).toBe(true);
  });
});
