import { ChakraProvider } from "@chakra-ui/react";
import { fireEvent, render, screen, within } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import type { PartLine } from "../../api/client";
import { system } from "../../theme/system";
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
