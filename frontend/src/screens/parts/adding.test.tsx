import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { PartKind } from "../../document/bin/cells";
import { onAScreen, PART_KINDS } from "../../fixtures";
import { type Call, serving } from "../../fixtures/server";
import { BulkAdd } from "./BulkAdd";

const GEAR = PART_KINDS.find((kind) => kind.kind === "gear") as PartKind;

/** Reads each size as a part of that name; "x" is a fault. */
function read({ body }: Call) {
  const sizes = (body as { text: string }).text.split(" ");
  const faults = sizes.includes("x")
    ? [{ row: 1, column: "", problem: "is no size", remedy: "type 12" }]
    : [];
  return { parts: sizes.map((id) => ({ id, kind: "gear" })), faults };
}

function adding() {
  serving({ "POST /api/workshops/{workshop}/parts/bulk/": read });
  const onAdd = vi.fn();
  onAScreen(<BulkAdd workshop="w" kind={GEAR} onAdd={onAdd} />);
  const type = (text: string) => fireEvent.change(screen.getByRole("textbox"), { target: { value: text } });
  return { onAdd, type, button: () => screen.getByRole("button") as HTMLButtonElement };
}

it("sizes are put into the bin once they have been read, and never those that stood there before", async () => {
  const { onAdd, type, button } = adding();
  type("12 13");
  await waitFor(() => expect(button().textContent).toBe("Put 2 into the bin"));
  type("12 14 15");
  expect(button().disabled).toBe(true);
  await waitFor(() => expect(button().textContent).toBe("Put 3 into the bin"));
  fireEvent.click(button());
  expect(onAdd.mock.calls[0]?.[0].map((part: { id: string }) => part.id)).toEqual(["12", "14", "15"]);
});

it("sizes with a fault are not put in", async () => {
  const { type, button } = adding();
  type("12 x");
  expect(await screen.findByText(/is no size/)).toBeTruthy();
  expect(button().disabled).toBe(true);
});
