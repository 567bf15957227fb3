import { fireEvent, screen, within } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { api } from "../../api/client";
import { at } from "../../document/document";
import { type Bench, DOCUMENTS, LOADS, onTheBench, UNITS } from "../../fixtures";
import { percent } from "../../words/loads";
import { LoadsStation } from "./LoadsStation";
import { against, csv, momentsOf, shareOf } from "./words";

const GEARS = "drive.branches[0].stages[0]";

const bench = (loads = LOADS): Bench => onTheBench(<LoadsStation />, {}, DOCUMENTS.mounted, null, loads);
const part = (title: string) => document.querySelector(`[data-part="${title}"]`) as HTMLElement;

describe("Loads", () => {
  it("says the one sentence that matters, and has a bar for each part in the order of the line", () => {
    bench();
    expect(document.querySelector("[data-sentence]")?.textContent).toBe(LOADS.sentence);
    const titles = [...document.querySelectorAll("[data-part]")].map((row) => row.getAttribute("data-part"));
    expect(titles).toEqual(LOADS.parts.map((part) => part.title));
    expect(titles.indexOf("motor")).toBeLessThan(titles.indexOf("toothed belt"));
  });

  it("tells of a part all that is checked, and takes what would settle it", () => {
    const rendered = bench();
    fireEvent.click(part("brakes"));
    const rows = document.querySelector("[data-part-rows]") as HTMLElement;
    expect(within(rows).getByText("Stopping", { exact: false })).toBeTruthy();
    const field = within(rows).getByLabelText("distance to stop in");
    fireEvent.change(field, { target: { value: "12 m" } });
    fireEvent.keyDown(field, { key: "Enter" });
    expect(rendered.edit.set).toHaveBeenCalledWith("vehicle.sight", "12 m");
  });

  it("offers what would relieve a part, and does it", async () => {
    const help = { text: "width 12 mm: 0.83", changes: [{ path: `${GEARS}.width`, value: '"12 mm"' }] };
    const answers: Record<string, unknown> = { "/api/loads/helps/": [help] };
    vi.spyOn(api, "POST").mockImplementation(
      (path: string) =>
        Promise.resolve({
          data: answers[path] ?? { heat: [], currents: [] },
          response: new Response(),
        }) as never,
    );
    const made = bench();
    fireEvent.click(part("gears"));
    fireEvent.click(
      (await screen.findAllByRole("button", { name: "Try it: width 12 mm: 0.83" }))[0] as HTMLElement,
    );
    expect(at(made.document(), `${GEARS}.width`)).toBe("12 mm");
  });

  it("selects on the Line the stage that is chosen", () => {
    const made = bench();
    fireEvent.click(part("gears"));
    expect(made.edit.select).toHaveBeenCalledWith({ path: GEARS, member: "driver" });
  });

  it("takes the usual day over as one's own once a block is touched", () => {
    const made = bench();
    fireEvent.keyDown(screen.getByLabelText("How long block 3 lasts"), { key: "ArrowLeft" });
    expect(at(made.document(), "loads.day")).toEqual([
      { do: "runs", count: 4, every: "30 s" },
      { do: "shove", for: "4 s" },
      { do: "rest", for: "8 min" },
    ]);
    expect(at(made.document(), "loads.heats")).toBe(3);
  });

  it("opens the working of a row", () => {
    bench();
    fireEvent.click(part("gears"));
    expect(screen.getAllByLabelText(/^\d+ %: where it comes from/).length).toBeGreaterThan(0);
  });

  it("shades the line by what its members stand", () => {
    bench();
    expect(document.querySelectorAll("[data-shade=over]").length).toBeGreaterThan(0);
  });

  it("says which part of a day is left out, and why", () => {
    bench({ ...LOADS, left_out: ['block 3, "turns" given: the design does not turn on the spot'] });
    expect(screen.getByRole("alert").textContent).toContain("does not turn on the spot");
  });
});

describe("words of loads", () => {
  const row = LOADS.parts.flatMap((part) => part.rows).find((part) => part.check === "motor_peak_current");

  it("say what is not known", () => {
    expect(row && against(UNITS, row)).toMatch(/^[\d.]+ A; what it stands is not known$/);
  });

  it("tell the use in a chosen moment", () => {
    const marked = LOADS.parts.find((part) => part.rows.some((r) => r.marks.length > 0));
    const moment = momentsOf(LOADS)[0] as string;
    expect(marked && shareOf(marked, moment)).toBeGreaterThan(0);
    expect(percent(0.936)).toBe("94 %");
  });

  it("make a table of all rows", () => {
    const lines = csv(LOADS).split("\r\n");
    expect(lines).toHaveLength(1 + LOADS.parts.reduce((n, part) => n + part.rows.length, 0));
    expect(lines[0]).toBe("part,check,moment,demand,capacity,use,state,assumed");
  });
});
