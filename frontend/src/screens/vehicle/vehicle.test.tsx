import { screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { Live, Loads, PartsAnswer } from "../../api/client";
import { onAScreen, PLAIN, press } from "../../fixtures";
import { Refuses, serving } from "../../fixtures/server";
import { STANDING } from "../../words/measures";
import { Scratch } from "./Scratch";
import { StationList } from "./StationList";

interface Told {
  live?: Live | null;
  loads?: object | null;
  parts?: object | null;
  build?: object | null;
  runs?: object[];
  searches?: object[];
  targets?: number;
}

/** The stations of a vehicle of which this is known. */
function stations({
  live = PLAIN,
  loads = null,
  parts = null,
  build = null,
  runs = [],
  searches = [],
  targets = 2,
}: Told) {
  serving({
    "GET /api/workshops/{workshop}/searches/": searches,
    "GET /api/workshops/{workshop}/runs/": runs,
    "GET /api/vehicles/{vehicle}/build/": build
      ? { shown: build, cares: [], hours: 0 }
      : new Refuses({ detail: "no" }),
  });
  onAScreen(
    <StationList
      vehicle="v"
      workshop="w"
      live={live}
      loads={loads as Loads | null}
      parts={parts as PartsAnswer | null}
      targets={targets}
    />,
  );
}

const figure = (name: string) =>
  screen.getByText(name, { selector: ".name" }).parentElement?.querySelector(".figure")?.textContent;
const standing = (name: string) =>
  screen
    .getByText(name, { selector: ".name" })
    .closest("a")
    ?.querySelector("svg")
    ?.getAttribute("aria-label");

describe("the stations of a vehicle", () => {
  it("lead on where nothing is known yet", () => {
    stations({ live: null, targets: 0 });
    expect(figure("Brief")).toBe("no targets yet");
    expect(figure("Options")).toBe("not searched");
    expect(figure("Fit")).toBe("not mounted");
    expect(figure("Runs")).toBe("none yet");
    expect(screen.getByText("Line").closest("a")?.getAttribute("href")).toBe("/vehicles/v/line");
  });

  it("say how many targets are met and how many options meet all", async () => {
    const judged = PLAIN.gauges.map((gauge, i) => ({
      ...gauge,
      target: i < 2 ? i : null,
      standing: i ? "misses" : "tight",
    }));
    stations({
      live: { ...PLAIN, gauges: judged as Live["gauges"] },
      searches: [{ meeting: null }, { meeting: 353 }],
    });
    expect(figure("Brief")).toBe("1 of 2 met");
    await waitFor(() => expect(figure("Options")).toBe("353 meet all"));
  });

  it("count clashes, and not what is only to mind", () => {
    const clash = (level: string) => ({ level }) as NonNullable<Live["clashes"]>[number];
    stations({ live: { ...PLAIN, clashes: [clash("clash"), clash("mind")] } });
    expect(figure("Fit")).toBe("1 clash");
  });

  it("say of parts what is to come, and whether that costs too much", () => {
    stations({ parts: { shown: { open: 4, spent: 11, to_spend: 21.5, budget: 30 } } });
    expect([figure("Parts list"), standing("Parts list")]).toEqual(["4 to come", STANDING.misses]);
  });

  it("say of the build what is done and what is loose", async () => {
    const steps = Array.from({ length: 71 }, (_, id) => ({ id }));
    stations({ build: { done: 21, steps, loose: [1, 2], signed_at: null, plan: null } });
    await waitFor(() => expect(figure("Build")).toBe("21/71, 2 loose"));
    expect(standing("Build")).toBe(STANDING.tight);
  });

  it("judge the last run by how far it was off", async () => {
    stations({ runs: [{ vehicle: "v", count: 13, off: -0.07, words: "" }] });
    await waitFor(() => expect(figure("Runs")).toBe("13, off by 7 %"));
    expect(standing("Runs")).toBe(STANDING.tight);
  });
});

describe("a scratch vehicle", () => {
  it("is kept by one press, or says why not", async () => {
    const answers = [new Refuses({ detail: "The workshop is full." }), undefined];
    const calls = serving({ "PATCH /api/vehicles/{vehicle}/": () => answers.shift() });
    onAScreen(<Scratch vehicle="v" />);
    await press("Keep it on the bench");
    expect((await screen.findByRole("alert")).textContent).toBe("The workshop is full.");
    await press("Keep it on the bench");
    expect(await screen.findByText("It is on the bench now.")).toBeTruthy();
    expect(calls[1]?.body).toEqual({ keep: true });
  });
});
