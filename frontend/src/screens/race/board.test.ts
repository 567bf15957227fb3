import { describe, expect, it } from "vitest";
import { type Board, boardOf, mayLeave, withEntry, withHeat, withoutEntry, withoutHeat } from "./board";

const EMPTY: Board = boardOf({
  format: "ydrometer-race",
  version: 1,
  name: "Corridor",
  distance: "12 m",
  lanes: 2,
  mode: "knockout",
});

describe("a race board", () => {
  it("enters teams with ids of their own, with a vehicle or without", () => {
    const two = withEntry(withEntry(EMPTY, "Reds", "v1"), "Blues", "");
    expect(two.entries).toEqual([
      { id: "t1", name: "Reds", vehicle: "v1" },
      { id: "t2", name: "Blues" },
    ]);
    // The id of one that has left is not given to the next.
    expect(withEntry(withoutEntry(two, "t1"), "Golds", "").entries.map((one) => one.id)).toEqual([
      "t2",
      "t3",
    ]);
  });

  it("lets nobody leave who has run", () => {
    const heat = { round: 1, entries: ["t1", "t2"], times: ["3 s", null] };
    const run = withHeat(withEntry(withEntry(EMPTY, "Reds", ""), "Blues", ""), heat);
    expect([mayLeave(run, "t1"), mayLeave(run, "t3")]).toEqual([false, true]);
    expect(mayLeave(withoutHeat(run, 0), "t1")).toBe(true);
  });
});
