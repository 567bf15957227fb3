import { expect, test } from "vitest";
import { matching } from "./commands";

const run = () => undefined;
const ALL = [
  { words: "Open the loads", group: "Sandpiper", run },
  { words: "Loads", group: "Station", run },
  { words: "Walk", group: "Keys", keys: "Tab" },
  { words: "Set the mark", group: "Line", keys: "M", run },
];

test("every word has to be there, in whatever order, and what begins with it comes first", () => {
  expect(matching(ALL, "loads", 9).map((c) => c.words)).toEqual(["Loads", "Open the loads"]);
  expect(matching(ALL, "line MARK", 9).map((c) => c.words)).toEqual(["Set the mark"]);
  expect(matching(ALL, "nothing", 9)).toEqual([]);
});

test("what cannot be done from elsewhere is not found, and no more than are wanted", () => {
  expect(matching(ALL, "", 9)).toHaveLength(3);
  expect(matching(ALL, "", 2)).toHaveLength(2);
});
