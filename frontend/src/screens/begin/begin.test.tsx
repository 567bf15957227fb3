import { fireEvent, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { Start, Starts } from "../../api/client";
import { onAScreen, PLAIN, press } from "../../fixtures";
import { Refuses, serving } from "../../fixtures/server";
import { answered } from "./answers";
import Begin from "./Begin";

const PICTURE: Start["picture"] = {
  ground: "floor",
  lines: [],
  outlines: [
    [
      [0, 0],
      [2, 0],
      [1, 1],
    ],
  ],
  person: null,
  wheels: [],
};
const START = {
  key: "ride-on",
  title: "Ride-on with a motor",
  words: "A seat and four wheels.",
  mass: 90,
  wheel_diameter: 0.25,
  footing: "rubber on concrete",
  source: "motor",
  size: "large",
  supply: "battery",
  cells: "lead",
  goals: [
    { measure: "top_speed", bound: "between", dimension: "speed", values: ["3 m/s", "5 m/s"] },
    { measure: "max_grade", bound: "at_least", dimension: "grade", values: ["8 %"] },
  ],
  line: PLAIN.view.line,
  picture: PICTURE,
} as unknown as Start;
const STARTS: Starts = {
  starts: [START, { ...START, key: "empty", title: "Empty bench" } as Start],
  sizes: ["small", "large"],
  footings: ["rubber on concrete", "steel on rails"],
  cells: ["lead", "lithium"],
};

describe("what is sent of the answers", () => {
  it("is nothing of what was left alone", () => {
    expect(answered({ name: "", mass: undefined, footing: "steel on rails" })).toEqual({
      footing: "steel on rails",
    });
  });

  it("has each target with its own kind of bound", () => {
    expect(answered({ goals: [["3 m/s", "5 m/s"], ["8 %"]] }, ["between", "at_least"])).toEqual({
      goals: [{ between: ["3 m/s", "5 m/s"] }, { at_least: "8 %" }],
    });
  });
});

describe("a first design", () => {
  const begin = (answers: Record<string, unknown> = {}, at = "?start=ride-on") => {
    const calls = serving({
      "GET /api/starts/": STARTS,
      "GET /api/workshops/{workshop}/parts/": [],
      ...answers,
    });
    onAScreen(<Begin />, `/workshops/w/new${at}`, "/workshops/:workshop/new");
    return calls;
  };
  const type = async (label: string, text: string) => {
    const field = await screen.findByLabelText(label);
    fireEvent.change(field, { target: { value: text } });
    fireEvent.blur(field);
  };
  const choose = async (label: string, value: string) =>
    fireEvent.change(await screen.findByLabelText(label), { target: { value } });

  it("begins with a picture", async () => {
    begin({}, "");
    const link = (await screen.findByText("Empty bench")).closest("a");
    expect(link?.getAttribute("href")).toBe("/workshops/w/new?start=empty");
  });

  it("may be put on the bench without a word", async () => {
    const calls = begin({ "POST /api/workshops/{workshop}/vehicles/": { id: "n" } });
    await press("Put it on the bench");
    expect(await screen.findByText("at /vehicles/n/line")).toBeTruthy();
    expect(calls[0]?.body).toEqual({ beginning: { start: "ride-on", answers: {} } });
  });

  it("takes what is known: a label in place of a typical motor, and what it weighs", async () => {
    const calls = begin({ "POST /api/workshops/{workshop}/vehicles/": { id: "n" } });
    await type("Mass, all of it", "120 kg");
    await choose("Motor", "label");
    await type("Speed constant on its label", "250 rpm/V");
    await choose("Battery", "label");
    await choose("Its cells", "lithium");
    await press("Put it on the bench");
    await screen.findByText("at /vehicles/n/line");
    expect(calls[0]?.body).toMatchObject({
      beginning: {
        answers: {
          mass: "120 kg",
          motor: { size: "large", kv: "250 rpm/V" },
          pack: { cells: "lithium", voltage: "", capacity: "" },
        },
      },
    });
  });

  it("drops the label again where a typical motor will do", async () => {
    const calls = begin({ "POST /api/workshops/{workshop}/vehicles/": { id: "n" } });
    await choose("Motor", "label");
    await choose("Motor", "");
    expect(screen.queryByLabelText("Speed constant on its label")).toBeNull();
    await press("Put it on the bench");
    await screen.findByText("at /vehicles/n/line");
    expect(calls[0]?.body).toEqual({ beginning: { start: "ride-on", answers: {} } });
  });

  it("says at its field what cannot be read, and keeps everything that was typed", async () => {
    const fault = { path: "answers.mass", problem: '"heavy" is no mass', remedy: "type it as 120 kg" };
    begin({ "POST /api/workshops/{workshop}/vehicles/": new Refuses({ detail: "no", faults: [fault] }) });
    await type("Mass, all of it", "heavy");
    await press("Put it on the bench");
    expect((await screen.findAllByText(/is no mass/)).length).toBeGreaterThan(0);
    expect((screen.getByLabelText("Mass, all of it") as HTMLInputElement).value).toBe("heavy");
    expect(screen.queryByText(/answers\./)).toBeNull();
  });
});
