import { describe, expect, it } from "vitest";
import { type Board, boardOf, type Change, entering, leaving, mayLeave, running, striking } from "./board";

const EMPTY: Board = boardOf({
  format: "ydrometer-race",
  version: 1,
  name: "Corridor",
  distance: "12 m",
  lanes: 2,
  mode: "knockout",
});
const NAMES = new Map([
  ["t1", "Reds"],
  ["t2", "Blues"],
]);
const HEAT = { round: 1, entries: ["t1", "t2"], times: ["3 s", null] };
const upon = (board: Board, ...changes: Change[]) =>
  changes.reduce((change, entry) => entry.apply(change), board);
const TWO = upon(EMPTY, entering("Reds", "v1"), entering("Blues", ""));

describe("a race board", () => {
  it("enters teams with ids of their own, with a vehicle or without", () => {
    expect(TWO.entries).toEqual([
      { id: "t1", name: "Reds", vehicle: "v1" },
      { id: "t2", name: "Blues" },
    ]);
    // The id of one that has left is not given to the next.
    const [first] = TWO.entries;
    const third = upon(TWO, leaving(first as Board["entries"][number]), entering("Golds", ""));
    expect(third.entries.map((entry) => entry.id)).toEqual(["t2", "t3"]);
  });

  it("lets nobody leave who has run", () => {
    const run = upon(TWO, running(HEAT, NAMES));
    expect([mayLeave(run, "t1"), mayLeave(run, "t3")]).toEqual([false, true]);
    expect(mayLeave(upon(run, striking(HEAT, 0, NAMES)), "t1")).toBe(true);
  });
});

describe("the way back of a change", () => {
  const other = { round: 1, entries: ["t1", "t2"], times: ["4 s", "5 s"] };

  it("leaves the heats that others wrote down since", () => {
    const mine = running(HEAT, NAMES);
    const both = upon(TWO, mine, running(other, NAMES));
    expect(mine.revert(both).heats).toEqual([other]);
  });

  it("puts a heat that was struck out where it was, with the revisions that the server noted", () => {
    const noted = { ...HEAT, revisions: [3, null] };
    const board = { ...TWO, heats: [noted, other] };
    const struck = striking(noted, 0, NAMES);
    expect(struck.apply(board).heats).toEqual([other]);
    expect(struck.revert(struck.apply(board)).heats).toEqual([noted, other]);
  });

  it("takes the team that was entered out, unless it has run meanwhile", () => {
    const golds = entering("Golds", "");
    const three = upon(TWO, golds);
    expect(golds.revert(three).entries).toEqual(TWO.entries);
    const run = upon(three, running({ round: 1, entries: ["t3", "t1"], times: ["3 s", "4 s"] }, NAMES));
    expect(golds.revert(run)).toEqual(run);
  });

  it("brings a team that left back as it was, once", () => {
    const [reds] = TWO.entries;
    const left = leaving(reds as Board["entries"][number]);
    expect(left.revert(left.apply(TWO)).entries.map((entry) => entry.id)).toEqual(["t2", "t1"]);
    expect(left.revert(TWO).entries).toHaveLength(2);
  });

  it("changes nothing where somebody has struck the heat out already", () => {
    expect(running(HEAT, NAMES).revert(TWO)).toEqual(TWO);
    expect(running(HEAT, NAMES).words).toBe("Reds 3 s · Blues did not finish");
  });
});
