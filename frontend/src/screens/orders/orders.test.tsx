import { fireEvent, screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { onAScreen } from "../../fixtures";
import { serving } from "../../fixtures/server";
import OrdersScreen from "./OrdersScreen";

const LINE = {
  key: "belt",
  words: "Belt, 80 teeth",
  number: 2,
  vehicles: ["Knot", "Reed"],
  price: 12.5,
  lead_days: 4,
};
const VEHICLES = ["Knot", "Reed"].map((name) => ({ id: name.toLowerCase(), name, put_away: false }));

function orders(lines: unknown[]) {
  serving({
    "GET /api/workshops/{workshop}/vehicles/": [...VEHICLES, { id: "old", name: "Old", put_away: true }],
    "GET /api/workshops/{workshop}/orders/": { lines, price: 25, unpriced: ["motor"] },
  });
  onAScreen(<OrdersScreen />, "/workshops/w/orders", "/workshops/:workshop/orders");
}

it("the order list is of all vehicles on the bench, and saved for those that are ticked", async () => {
  orders([LINE]);
  expect(await screen.findByText("Belt, 80 teeth")).toBeTruthy();
  expect(screen.getByText("Knot, Reed")).toBeTruthy();
  expect(screen.getByText("1 without a price")).toBeTruthy();
  expect(screen.queryByLabelText("Old")).toBeNull();
  const saved = () => screen.getByText("Save as CSV").getAttribute("href");
  expect(saved()).toBe("/api/workshops/w/orders/export/csv/?vehicle=knot&vehicle=reed");
  fireEvent.click(screen.getByLabelText("Reed"));
  expect(saved()).toBe("/api/workshops/w/orders/export/csv/?vehicle=knot");
});

it("says what to do where there is nothing to order, or no vehicle", async () => {
  orders([]);
  expect(await screen.findByText(/Nothing is to be ordered/)).toBeTruthy();
  for (const { name } of VEHICLES) fireEvent.click(screen.getByLabelText(name));
  expect(await screen.findByText(/Choose a vehicle/)).toBeTruthy();
});
