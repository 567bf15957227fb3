import { fireEvent, screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { ExerciseSet, Pupils } from "../../api/client";
import { onAScreen, press } from "../../fixtures";
import { EXERCISE } from "../../fixtures/exercises";
import { Refuses, serving } from "../../fixtures/server";
import ClassScreen from "./ClassScreen";
import SetScreen from "./SetScreen";
import SetsScreen from "./SetsScreen";
import WallScreen from "./WallScreen";

const pupil = (...right: boolean[]): Pupils =>
  ({
    name: "Tidal class",
    nickname: "Fen",
    exercises: right.map((done, place) => ({ place, right: done, tried: done })),
  }) as unknown as Pupils;

describe("a pupil", () => {
  const joining = (answers: Record<string, unknown>) => {
    const calls = serving({ "GET /api/class/": undefined, ...answers });
    onAScreen(<ClassScreen />);
    return calls;
  };
  const type = async (label: string, text: string) =>
    fireEvent.change(await screen.findByLabelText(label), { target: { value: text } });

  it("joins by a code in any letters, and keeps what was typed where another has the name", async () => {
    const words = 'There is a "Fen" already: take another name.';
    const answers = [new Refuses({ detail: "no", fields: { nickname: [words] } }), pupil(false)];
    const calls = joining({
      "GET /api/class/": null,
      "POST /api/class/joining/": () => answers.shift(),
      "GET /api/class/exercises/{place}/": EXERCISE,
    });
    await type("Code, six letters", "abcdef");
    await type("First name or nickname", "Fen");
    fireEvent.click(screen.getByText("Join", { selector: "button" }));
    expect((await screen.findByRole("alert")).textContent).toBe(words);
    expect((screen.getByLabelText("Code, six letters") as HTMLInputElement).value).toBe("ABCDEF");
    await type("First name or nickname", "Fen B");
    fireEvent.click(screen.getByText("Join", { selector: "button" }));
    expect(await screen.findByText("How fast does it roll?")).toBeTruthy();
    expect(calls[1]?.body).toEqual({ code: "ABCDEF", nickname: "Fen B" });
  });

  it("begins with the first exercise that is not right yet, and chooses others", async () => {
    joining({
      "GET /api/class/": pupil(true, false, false),
      "GET /api/class/exercises/{place}/": ({ path }: { path: { place: number } }) => ({
        ...EXERCISE,
        words: `exercise at ${path.place}`,
      }),
    });
    expect(await screen.findByText("exercise at 1")).toBeTruthy();
    expect(screen.getByText("1 of 3")).toBeTruthy();
    fireEvent.click(screen.getByLabelText("Exercise 3, new"));
    expect(await screen.findByText("exercise at 2")).toBeTruthy();
    expect(screen.getByLabelText("Exercise 1, right")).toBeTruthy();
  });

  it("leaves only when asked again: the name stays taken", async () => {
    const calls = joining({
      "GET /api/class/": pupil(false),
      "GET /api/class/exercises/{place}/": EXERCISE,
      "DELETE /api/class/": undefined,
    });
    await press("Leave on this device");
    expect(calls).toEqual([]);
    await press(/^Yes: leave/);
    expect(await screen.findByText("Join a class")).toBeTruthy();
  });
});

describe("a set of exercises, live", () => {
  const SET = {
    id: "s",
    name: "Tidal class",
    code: "ABCDEF",
    own_numbers: true,
    exercises: [
      {
        place: 0,
        idea: "ratio",
        level: 1,
        words: "How often?",
        tried: 2,
        right: 1,
        mistakes: [{ name: "upside down", count: 1 }],
      },
      { place: 1, idea: "idlers", level: 2, words: "Which way?", tried: 0, right: 0, mistakes: [] },
    ],
    pupils: [{ nickname: "Fen", right: 1, done: ["right", ""] }],
    mistakes: [{ name: "", count: 3 }],
  } as unknown as ExerciseSet;
  const live = (set: ExerciseSet, answers: Record<string, unknown> = {}) => {
    const calls = serving({ "GET /api/sets/{which}/": set, ...answers });
    onAScreen(<SetScreen />, "/sets/s", "/sets/:set");
    return calls;
  };

  it("shows the code, who is how far, and which mistakes are made", async () => {
    live(SET);
    expect(await screen.findByText("ABCDEF")).toBeTruthy();
    expect(screen.getByText(/2 exercises, 1 joined, each their own numbers/)).toBeTruthy();
    expect(screen.getByText("1 of 2 right")).toBeTruthy();
    expect(screen.getByText("nobody yet")).toBeTruthy();
    expect(screen.getByText("none of the usual ones")).toBeTruthy();
    const states = [...document.querySelectorAll("[data-pupil=Fen] [data-state]")];
    expect(states.map((cell) => cell.getAttribute("data-state"))).toEqual(["right", ""]);
  });

  it("forgets pupils, and itself, when asked once more, or says why not", async () => {
    const answers = [new Refuses({ detail: "The server is busy." }, 503), undefined];
    const calls = live(SET, {
      "DELETE /api/sets/{which}/pupils/": () => answers.shift(),
      "DELETE /api/sets/{which}/": undefined,
    });
    for (const told of ["The server is busy.", null]) {
      await press("Forget all pupils");
      await press("Yes: 1 pupil and all answers go for good");
      await waitFor(() => expect(screen.queryByRole("alert")?.textContent ?? null).toBe(told));
    }
    expect(calls).toHaveLength(2);
    await press("Delete this set");
    await press(/^Yes: the set goes for good/);
    expect(await screen.findByText("at /")).toBeTruthy();
  });

  it("has nobody to forget before anybody has joined", async () => {
    live({ ...SET, pupils: [] });
    expect(await screen.findByText(/Nobody has joined yet/)).toBeTruthy();
    expect((screen.getByText("Forget all pupils") as HTMLButtonElement).disabled).toBe(true);
  });
});

describe("a new set", () => {
  it("wants an idea and a level, and says what was chosen", async () => {
    const calls = serving({
      "GET /api/workshops/{workshop}/sets/": [],
      "GET /api/practice/": { ideas: [{ idea: "ratio" }, { idea: "idlers" }] },
      "POST /api/workshops/{workshop}/sets/": { id: "n" },
    });
    onAScreen(<SetsScreen />, "/workshops/w/sets", "/workshops/:workshop/sets");
    const make = (await screen.findByText("Make the set")) as HTMLButtonElement;
    expect(make.disabled).toBe(true);
    fireEvent.click(await screen.findByLabelText("idlers"));
    fireEvent.click(screen.getByLabelText("3"));
    fireEvent.click(screen.getByLabelText("each their own numbers"));
    fireEvent.click(make);
    expect(await screen.findByText("at /sets/n")).toBeTruthy();
    expect(calls[0]?.body).toEqual({
      name: "Exercises",
      ideas: ["idlers"],
      levels: [1, 3],
      count: 8,
      own_numbers: true,
      units: "metric",
    });
  });
});

describe("an exercise on the wall", () => {
  it("ends with the last of its set", async () => {
    serving({
      "GET /api/sets/{which}/": { id: "s", exercises: [{}, {}] },
      "GET /api/sets/{which}/wall/{place}/": EXERCISE,
      "POST /api/sets/{which}/wall/{place}/": {
        key: "4",
        words: "Four times.",
        working: { steps: [], values: [], result: null },
      },
    });
    onAScreen(<WallScreen />, "/sets/s/wall/1", "/sets/:set/wall/:place");
    expect(await screen.findByText("How fast does it roll?")).toBeTruthy();
    const before = screen.getByText("Before") as HTMLButtonElement;
    expect(before.disabled).toBe(true);
    await press("Next");
    await screen.findByText(/^2\./);
    await waitFor(() => expect((screen.getByText("Next") as HTMLButtonElement).disabled).toBe(true));
  });
});
