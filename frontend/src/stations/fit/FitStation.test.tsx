import { fireEvent, screen, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { PlanShaft } from "../../api/client";
import { type Mounting, shaftOf } from "../../document/mounting";
import { type Bench, DOCUMENTS, MOUNTED, ON_PLATE, onTheBench } from "../../fixtures";
import { FitStation } from "./FitStation";

const JACK = "drive.branches[0].stages[0]";
const AXLE = "drive.stages[0]";

/** Alone on a second plate. */
const TURNED: PlanShaft = { ...(ON_PLATE.plan.shafts[0] as PlanShaft), path: "drive.stages[1]", wheels: [] };

const bench = (): Bench => onTheBench(<FitStation />, {}, DOCUMENTS.mounted, MOUNTED);
const grip = (shaft: string) => document.querySelector(`[data-shaft="${shaft}"]`) as SVGElement;

describe("Fit", () => {
  it("says first how many things do not go together, and each with its number", () => {
    bench();
    expect(screen.getByRole("heading", { name: "1 clash" })).toBeTruthy();
    const clash = screen.getByText(/belt of 84 teeth: too short by/);
    fireEvent.click(clash);
    expect(clash.closest("button")?.getAttribute("aria-pressed")).toBe("true");
  });

  it("has a grip for each shaft with its name and how it is mounted", () => {
    bench();
    const names = [...document.querySelectorAll("[data-shaft]")].map((g) => g.getAttribute("aria-label"));
    expect(names).toEqual(["motor shaft, in a slot", "shaft of the 56-tooth gear, fixed", "axle, on a hole"]);
  });

  it("walks a shaft from hole to hole, and leaves one in a slot where it is", () => {
    const rendered = bench();
    fireEvent.keyDown(grip(AXLE), { key: "ArrowLeft" });
    expect(shaftOf(rendered.document(), AXLE)?.at).toEqual(["252 mm", "48 mm"]);
    fireEvent.keyDown(grip(AXLE), { key: "ArrowUp", shiftKey: true });
    expect(shaftOf(rendered.document(), AXLE)?.at).toEqual(["264 mm", "48.1 mm"]);
    const before = rendered.document();
    fireEvent.keyDown(grip("drive.branches[0].source"), { key: "ArrowLeft" });
    expect(rendered.document()).toBe(before);
  });

  it("selects on the Line what is chosen here", () => {
    const made = bench();
    fireEvent.focus(grip(AXLE));
    expect(made.edit.select).toHaveBeenCalledWith({ path: AXLE, member: "driven" });
  });

  it("tells the plan as a table by key", () => {
    bench();
    fireEvent.keyDown(grip(AXLE), { key: "t" });
    const table = document.querySelector("[data-plan-table]") as HTMLElement;
    const row = within(table).getByRole("row", { name: /axle/ });
    expect(row.textContent).toContain("264 mm");
  });

  it("shows the plate of what is chosen, and leads to the others", () => {
    const second = {
      ...ON_PLATE,
      behind: AXLE,
      name: "plate 2",
      plan: { ...ON_PLATE.plan, wheels: [], shafts: [TURNED] },
    };
    const two = { ...MOUNTED, plates: [ON_PLATE, second] };
    const made = onTheBench(<FitStation />, {}, DOCUMENTS.mounted, two);
    expect(grip(JACK)).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: /plate 2/ }));
    expect(made.edit.select).toHaveBeenCalledWith({ path: TURNED.path, member: "driven" });
    made.unmount();
    onTheBench(<FitStation />, { selected: { path: TURNED.path, member: "driven" } }, DOCUMENTS.mounted, two);
    expect(grip(JACK)).toBeNull();
    expect(screen.getByRole("button", { name: /plate 2/ }).getAttribute("aria-pressed")).toBe("true");
  });

  it("fills the gaps of the chosen shaft by one key", () => {
    const made = onTheBench(
      <FitStation />,
      { selected: { path: JACK, member: "driven" } },
      DOCUMENTS.mounted,
      MOUNTED,
    );
    fireEvent.click(screen.getByRole("tab", { name: "Section along the shaft" }));
    expect(screen.getByText(/Gap of 4 mm/)).toBeTruthy();
    fireEvent.keyDown(grip(JACK), { key: "f" });
    const items = shaftOf(made.document(), JACK)?.stack?.items ?? [];
    expect(items.filter((item) => item.spacer).map((item) => item.width)).toEqual(["2 mm", "2 mm"]);
  });

  it("changes how a shaft is mounted without losing what else was said of it", () => {
    const made = onTheBench(
      <FitStation />,
      { selected: { path: JACK, member: "driven" } },
      DOCUMENTS.mounted,
      MOUNTED,
    );
    fireEvent.change(screen.getByLabelText("mounted"), { target: { value: "slot" } });
    expect(shaftOf(made.document(), JACK)).toMatchObject({
      mount: "slot",
      slot: { start: ["110 mm", "48 mm"], end: ["130 mm", "48 mm"] },
      diameter: "8 mm",
    });
  });

  it("offers a plate where nothing is said of mounting, and then puts the first shaft on a hole", () => {
    const made = onTheBench(<FitStation />, {}, DOCUMENTS.plain, MOUNTED);
    fireEvent.click(screen.getByRole("button", { name: "Put it on a plate with a grid of holes" }));
    const fit = made.document().fit as Mounting;
    expect(fit.plate?.hole_pitch).toBe("12 mm");
    expect(fit.shafts?.[0]).toMatchObject({ mount: "holes", at: ["120 mm", "72 mm"] });
  });

  it("shows the settings by the hundredth of a millimetre, with the caution above them", () => {
    bench();
    const row = document.querySelector('[data-setting="centre_distance"]') as HTMLElement;
    expect(row.textContent).toContain("35.5 mm");
    expect(screen.getAllByText(/Battery disconnected and motor blocked/)).toHaveLength(1);
  });
});
