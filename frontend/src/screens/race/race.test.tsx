import { fireEvent, screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { Race } from "../../api/client";
import { onAScreen, press } from "../../fixtures";
import { type Call, Refuses, serving } from "../../fixtures/server";
import type { Board } from "./board";
import RaceScreen from "./RaceScreen";

const REDS = { id: "t1", name: "Reds" };
const BLUES = { id: "t2", name: "Blues" };
const HEAT = { round: 1, entries: ["t1", "t2"], times: ["3.20 s", "3.40 s"] };
const BOARD: Board = {
  format: "ydrometer-race",
  version: 1,
  name: "Corridor",
  distance: "12 m",
  lanes: 2,
  mode: "everyone",
  entries: [REDS, BLUES],
  heats: [],
};

/** As the server tells a race of this document. */
function race(
  version: number,
  more: Partial<Board> = {},
  next: Race["next"] = { round: 1, entries: ["t1", "t2"] },
): Race {
  const board = { ...BOARD, ...more };
  return {
    id: "r",
    workshop: "w",
    version,
    document: board as unknown as Record<string, unknown>,
    entries: board.entries.map((entry) => ({
      ...entry,
      vehicle_name: "Knot",
      predicted: 3.1,
      last_run: entry.id === "t1" ? 3.05 : null,
      log: [],
    })),
    standings: [],
    next,
  } as unknown as Race;
}

const ADDRESS = "/api/races/{race}/";
const CONFLICT = new Refuses(
  { detail: "Somebody has changed the race since. Nothing was overwritten." },
  409,
);

function board(answers: Record<string, unknown>) {
  const calls = serving({
    "GET /api/workshops/": [],
    [`GET ${ADDRESS}`]: race(4),
    ...answers,
  });
  onAScreen(<RaceScreen />, "/races/r", "/races/:race");
  return calls;
}

const saved = (call: Call | undefined) => call?.body as { base: number; document: Board };
const type = async (label: string | RegExp, text: string) =>
  fireEvent.change(await screen.findByLabelText(label), { target: { value: text } });

describe("a heat", () => {
  it("is written down with what was typed, a lane left empty did not finish", async () => {
    const calls = board({ [`PUT ${ADDRESS}`]: race(5, { heats: [HEAT] }) });
    await type(/^Time of Reds/, "3.2");
    await press("Write it down");
    await waitFor(() => expect(calls).toHaveLength(1));
    expect(saved(calls[0])).toMatchObject({
      base: 4,
      document: { heats: [{ ...HEAT, times: ["3.2 s", null] }] },
    });
    expect(await screen.findByText("Reds 3.20 s · Blues 3.40 s")).toBeTruthy();
  });

  it("takes the time of the last run by one key", async () => {
    board({});
    await press(/^last run/);
    expect((screen.getByLabelText(/^Time of Reds/) as HTMLInputElement).value).toBe("3.05 s");
  });

  it("goes upon what others did meanwhile, where the same two are still next", async () => {
    const read = [race(4), race(5, { entries: [REDS, BLUES, { id: "t3", name: "Golds" }] })];
    const answers = [CONFLICT, race(6, { heats: [HEAT] })];
    const calls = board({
      [`GET ${ADDRESS}`]: () => read.shift(),
      [`PUT ${ADDRESS}`]: () => answers.shift(),
    });
    await type(/^Time of Reds/, "3.2");
    await press("Write it down");
    await waitFor(() => expect(calls).toHaveLength(2));
    expect(saved(calls[1]).base).toBe(5);
    expect(saved(calls[1]).document.entries).toHaveLength(3);
    expect(saved(calls[1]).document.heats).toHaveLength(1);
  });

  it("that somebody else wrote down first is not written twice, and what was typed is told", async () => {
    const read = [race(4), race(5, { heats: [HEAT] }, { round: 1, entries: ["t2", "t1"] })];
    const calls = board({ [`GET ${ADDRESS}`]: () => read.shift(), [`PUT ${ADDRESS}`]: CONFLICT });
    await type(/^Time of Reds/, "3.2");
    await type(/^Time of Blues/, "3.4");
    await press("Write it down");
    expect((await screen.findByRole("alert")).textContent).toMatch(/Not kept: Reds 3.2 s · Blues 3.4 s\.$/);
    expect(calls).toHaveLength(1);
  });

  it("is undone alone: what others wrote down since stays", async () => {
    const theirs = { ...HEAT, times: ["4 s", "5 s"] };
    const answers = [
      race(5, { heats: [{ ...HEAT, times: ["3.2 s", null] }] }),
      CONFLICT,
      race(7, { heats: [theirs] }),
    ];
    const read = [race(4), race(6, { heats: [{ ...HEAT, times: ["3.2 s", null] }, theirs] })];
    const calls = board({
      [`GET ${ADDRESS}`]: () => read.shift(),
      [`PUT ${ADDRESS}`]: () => answers.shift(),
    });
    await type(/^Time of Reds/, "3.2");
    await press("Write it down");
    await screen.findByText("Reds 3.2 s · Blues did not finish");
    await press("Undo");
    await waitFor(() => expect(calls).toHaveLength(3));
    expect(saved(calls[2])).toMatchObject({ base: 6, document: { heats: [theirs] } });
  });
});

describe("a team", () => {
  it("keeps its name in the field until it is entered", async () => {
    const answers = [new Refuses({ detail: "A race has at most 64 teams." }), race(5)];
    const calls = board({ [`PUT ${ADDRESS}`]: () => answers.shift() });
    await type("Name of a team", "Golds");
    await press("Enter the team");
    expect((await screen.findByRole("alert")).textContent).toBe(
      "A race has at most 64 teams. Not kept: Golds.",
    );
    const name = screen.getByLabelText("Name of a team") as HTMLInputElement;
    expect(name.value).toBe("Golds");
    await press("Enter the team");
    await waitFor(() => expect(name.value).toBe(""));
    expect(saved(calls[1]).document.entries.at(-1)).toEqual({ id: "t3", name: "Golds" });
  });

  it("that has run cannot be taken out", async () => {
    board({ [`GET ${ADDRESS}`]: race(4, { heats: [HEAT] }) });
    expect(await screen.findByText("Reds 3.20 s · Blues 3.40 s")).toBeTruthy();
    expect(screen.getAllByText("Take it out")).toHaveLength(1);
  });
});

it("a race of others is told as missing", async () => {
  board({ [`GET ${ADDRESS}`]: new Refuses({ detail: "no" }, 404) });
  expect(await screen.findByText("There is no such race")).toBeTruthy();
});
