import { ChakraProvider } from "@chakra-ui/react";
import { fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it, test, vi } from "vitest";
import type { PartLine, PartsShown } from "../../api/client";
import type { Book } from "../../document/useBook";
import { fileOf, onTheBench, press } from "../../fixtures";
import { serving } from "../../fixtures/server";
import { system } from "../../theme/system";
import { Files } from "./Files";
import { Money } from "./Money";
import { OwnLines } from "./OwnLines";
import { PartLines } from "./PartLines";
import { source, standing } from "./words";

const line = (words: string, more: Partial<PartLine> = {}) =>
  ({
    key: words,
    kind: "gear",
    words,
    number: 2,
    where: "on the motor shaft",
    owned: 0,
    to_buy: 2,
    taken: [],
    make: [],
    price: 7,
    paid: null,
    state: "needed",
    expected: null,
    by: "",
    ...more,
  }) as unknown as PartLine;

const LINES = [
  line("15-tooth gear", { owned: 2, to_buy: 0, price: 0, state: "here" }),
  line("36-tooth pulley"),
  line("axle", { state: "ordered", expected: "2027-05-20", paid: 11 }),
];

test("a line says where it comes from and how it stands", () => {
  expect(LINES.map(source)).toEqual(["owned", "to buy", expect.stringContaining("by ")]);
  expect(LINES.map(standing)).toEqual(["holds", "misses", "tight"]);
  expect(source(line("bearing", { owned: 1 }))).toBe("1 of 2 owned");
});

test("a state is said in the row, and arrows walk along the rows", () => {
  const say = vi.fn();
  const choose = vi.fn();
  render(
    <ChakraProvider value={system}>
      <PartLines lines={LINES} chosen="36-tooth pulley" onChoose={choose} onSay={say} />
    </ChakraProvider>,
  );
  const row = screen.getByText("36-tooth pulley").closest("tr") as HTMLElement;
  fireEvent.change(within(row).getByLabelText("State of 36-tooth pulley"), { target: { value: "here" } });
  expect(say).toHaveBeenCalledWith(LINES[1], { state: "here" });
  fireEvent.keyDown(within(row).getByRole("button"), { key: "ArrowDown" });
  expect(choose).toHaveBeenCalledWith("axle");
  expect(screen.getByText("11")).toBeTruthy();
});

describe("what else is needed", () => {
  const lines = (taken = true) => {
    let book: Book = { lines: [{ id: "l1", words: "frame", number: 2 }] };
    const change = vi.fn(async (how: (old: Book) => Book) => {
      if (taken) book = how(book);
      return taken;
    });
    const trouble = taken ? "" : "lines[1].number: is no whole number";
    onTheBench(<OwnLines book={{ book, change, trouble }} readOnly={false} />);
    return () => book.lines;
  };
  const type = (label: string, text: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value: text } });

  it("takes what is known of it, and nothing of what is not", async () => {
    const now = lines();
    type("What", " seat ");
    type("Mass of one", "2 kg");
    await press("Add");
    expect(now()?.[1]).toEqual({ id: expect.any(String), words: "seat", number: 1, mass: "2 kg" });
    await waitFor(() => expect((screen.getByLabelText("What") as HTMLInputElement).value).toBe(""));
  });

  it("hands a number that is none on as it was typed, and keeps it in the field", async () => {
    lines(false);
    type("What", "seat");
    type("Number", "two");
    await press("Add");
    expect(screen.getByRole("alert").textContent).toMatch(/no whole number/);
    expect((screen.getByLabelText("Number") as HTMLInputElement).value).toBe("two");
  });

  it("takes a line out", () => {
    const now = lines();
    fireEvent.click(screen.getByLabelText("Take out frame"));
    expect(now()).toEqual([]);
  });
});

describe("money", () => {
  const sums = (budget: number | null, stored?: string) => {
    const change = vi.fn(async () => true);
    const shown = { spent: 11, to_spend: 21.5, budget, unpriced: ["motor"] } as unknown as PartsShown;
    onTheBench(
      <Money shown={shown} book={{ book: { budget: stored }, change, trouble: "" }} readOnly={false} />,
    );
    return change;
  };

  it("says in words by how much it is over the budget", () => {
    sums(30);
    expect(screen.getByText("over the budget of 30 by 2.5")).toBeTruthy();
    expect(screen.getByText("1 without a price")).toBeTruthy();
  });

  it("takes a budget when its field is left, once", () => {
    const change = sums(null);
    const field = screen.getByLabelText("budget");
    fireEvent.blur(field);
    expect(change).not.toHaveBeenCalled();
    fireEvent.change(field, { target: { value: "40" } });
    fireEvent.keyDown(field, { key: "Enter" });
    expect(change).toHaveBeenCalledOnce();
  });
});

describe("states and prices from a file", () => {
  const file = (answer: unknown) => {
    serving({ "POST /api/vehicles/{vehicle}/parts-list/file/": answer });
    onTheBench(<Files vehicle="v" readOnly={false} />);
    fireEvent.change(screen.getByLabelText("Take states and prices from a file"), {
      target: { files: [fileOf("list.csv", "what,state")] },
    });
    return screen.findByRole("status");
  };

  it("tell how many lines they changed", async () => {
    expect((await file({ changed: 1, faults: [] })).textContent).toBe("1 line changed.");
  });

  it("tell each fault with its row and column, and change nothing then", async () => {
    const fault = { row: 3, column: "state", problem: "is no state", remedy: "say needed, ordered or here" };
    const words = (await file({ changed: 0, faults: [fault] })).textContent;
    expect(words).toBe("Nothing was taken. row 3, state: is no state, say needed, ordered or here");
  });
});
