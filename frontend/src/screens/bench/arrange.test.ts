import { expect, test } from "vitest";
import type { VehicleCard } from "../../api/client";
import { arranged } from "./arrange";

const card = (name: string, changed_at: string, notes = "") =>
  ({ id: name, name, changed_at, document: { notes } }) as unknown as VehicleCard;
const ALL = [
  card("Knot", "2026-05-01"),
  card("Dunlin", "2026-07-01", "sand trolley"),
  card("Turnstone", "2026-06-01"),
];
const names = (typed: string, order: "name" | "changed") => arranged(ALL, typed, order).map((v) => v.name);

test("they come by name or by when they were changed", () => {
  expect(names("", "name")).toEqual(["Dunlin", "Knot", "Turnstone"]);
  expect(names("", "changed")).toEqual(["Dunlin", "Turnstone", "Knot"]);
});

test("words are looked for in names and notes", () => {
  expect(names("SAND dun", "name")).toEqual(["Dunlin"]);
  expect(names("n t", "name")).toEqual(["Dunlin", "Knot", "Turnstone"]);
  expect(names("rail", "name")).toEqual([]);
});
