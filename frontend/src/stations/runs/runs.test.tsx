import { fireEvent, screen, waitFor } from "@testing-library/react";
import { describe, expect, test } from "vitest";
import type { LoggedRun, RunKind } from "../../api/client";
import type { DesignDocument } from "../../document/document";
import { onTheBench, press } from "../../fixtures";
import { serving } from "../../fixtures/server";
import { keptOf } from "../../ui/kept";
import { area, FRAME, line, placedLabels, scales, span } from "./plot";
import { RunsStation } from "./RunsStation";
import { asDocument, asEntry, isTouched, leftOut, nextEntry, withLeftOut } from "./run";
import { csv } from "./Shown";
import { keepWaiting, type Waiting, waitingRuns } from "./waiting";

const field = (key: string, choices: string[] = []) => ({
  key,
  label: key,
  control: choices.length ? ("choice" as const) : ("quantity" as const),
  dimension: choices.length ? "" : "distance",
  optional: false,
  group: "",
  choices,
});
const KINDS = [
  {
    kind: "distance_time",
    title: "Time",
    dimension: "time",
    fields: [field("distance")],
    conditions: [field("ground")],
  },
  {
    kind: "spin",
    title: "Spin",
    dimension: "angular speed",
    fields: [field("of", ["wheel", "motor"])],
    conditions: [field("ground")],
  },
] as RunKind[];
const DESIGN = { run: { distance: "25 m" } } as unknown as DesignDocument;
const logged = (document: Record<string, unknown>) => ({ document }) as unknown as LoggedRun;

describe("the next run", () => {
  test("begins with what the design is timed over, and with a choice's first value", () => {
    expect(nextEntry(KINDS, "distance_time", [], DESIGN).said).toEqual({
      distance: "25 m",
      ground: undefined,
    });
    expect(nextEntry(KINDS, "spin", [], DESIGN).said.of).toBe("wheel");
  });

  test("is like the last one of its kind, under the conditions of the last one of all", () => {
    const runs = [
      logged({ kind: "spin", of: "motor", ground: "hall", readings: ["1 rpm"] }),
      logged({ kind: "distance_time", distance: "12 m", ground: "sand", readings: ["3 s"] }),
    ];
    const entry = nextEntry(KINDS, "distance_time", runs, DESIGN);
    expect(entry.said).toEqual({ distance: "12 m", ground: "hall" });
    expect(entry.readings).toEqual([""]);
  });

  test("is written without empty fields, and read back as it was", () => {
    const entry = { ...nextEntry(KINDS, "spin", [], DESIGN), readings: ["900 rpm", " ", ""], note: " cold " };
    const document = asDocument(entry);
    expect(document).toEqual({ kind: "spin", of: "wheel", readings: ["900 rpm"], note: "cold" });
    expect(asEntry(document, 7)).toEqual({
      ...entry,
      said: { of: "wheel" },
      readings: ["900 rpm", ""],
      note: "cold",
      tried: 7,
    });
  });

  test("a reading is left out with a reason and counted again without a trace", () => {
    const document = { kind: "spin", readings: ["1", "2", "3"] };
    const two = withLeftOut(withLeftOut(document, 2, "slipped"), 0, "read wrongly");
    expect(leftOut(two).map((entry) => entry.reading)).toEqual([0, 2]);
    expect(withLeftOut(withLeftOut(two, 0, null), 2, null)).toEqual(document);
  });
});

describe("a form", () => {
  const fresh = nextEntry(KINDS, "spin", [], {} as DesignDocument);

  test("that nothing was typed in is not kept", () => {
    expect(isTouched(fresh, fresh)).toBe(false);
    expect(isTouched({ ...fresh, step: null }, fresh)).toBe(false);
    expect(isTouched({ ...fresh, note: "cold" }, fresh)).toBe(true);
    expect(isTouched({ ...fresh, readings: ["9", ""] }, fresh)).toBe(true);
  });
});

describe("in the pit", () => {
  const lost = () => {
    throw new TypeError("no connection");
  };

  test("readings are typed before the log was ever seen, and wait", async () => {
    serving({
      "GET /api/vehicles/{vehicle}/runs/": lost,
      "GET /api/vehicles/{vehicle}/plan/": lost,
      "GET /api/workshops/{workshop}/runs/": lost,
      "POST /api/vehicles/{vehicle}/runs/": lost,
    });
    const shown = onTheBench(<RunsStation />);
    expect(await screen.findByText(/The log cannot be had now. What you type is kept here/)).toBeTruthy();
    expect(keptOf("a")).toEqual([]);
    fireEvent.change(screen.getByLabelText("Reading 1"), { target: { value: "3.42 s" } });
    await press("Log it");
    await waitFor(() => expect(shown.container.querySelector("[data-waiting-run]")).toBeTruthy());
    expect(waitingRuns("a", "v").map((entry) => entry.document.readings)).toEqual([["3.42 s"]]);
  });
});

describe("what waits on the device", () => {
  test("is kept by account and vehicle, and gone when it has been sent", () => {
    const run = {
      id: "a",
      document: { kind: "push", readings: ["9 N"] },
      design: null,
      tried: null,
      made_at: "",
    };
    keepWaiting("me", "v", [run as Waiting]);
    expect(waitingRuns("me", "v")).toEqual([run]);
    expect(waitingRuns("you", "v")).toEqual([]);
    keepWaiting("me", "v", []);
    expect(localStorage.length).toBe(0);
  });

  test("a store that cannot be read holds nothing", () => {
    localStorage.setItem("ydrometer-runs|me|v", "{");
    expect(waitingRuns("me", "v")).toEqual([]);
  });
});

describe("charts", () => {
  const frame = { ...FRAME, width: 400, height: 200 };
  const at = scales(frame, [0, 10], [0, 5]);

  test("lines are broken where there is no value, areas leave it out", () => {
    expect(line([0, 5, 10], [1, null, 2], at).match(/M/g)).toHaveLength(2);
    expect(area([0, 5], [null, 1], [1, 2], at)).toBe("");
    expect(area([0, 5], [0, 1], [1, 2], at)).toMatch(/^M.*Z$/);
  });

  test("a span has room, also around one value", () => {
    expect(span([2, 4], 0.5)).toEqual([1, 5]);
    expect(span([3])[0]).toBeLessThan(3);
    expect(span([])).toEqual([0, 1]);
  });

  test("names of points do not lie on each other", () => {
    const points = [0, 4, 8].map((dx) => ({ x: 200 + dx, y: 100, text: "12 teeth" }));
    const placed = placedLabels(points, frame);
    expect(new Set(placed.map((one) => `${one.x > 200} ${one.y}`)).size).toBe(3);
  });

  test("cells with commas are quoted in CSV", () => {
    expect(csv({ heads: ["a", "b"], rows: [["1,5", 'x"y']] })).toBe('a,b\n"1,5","x""y"\n');
  });
});
