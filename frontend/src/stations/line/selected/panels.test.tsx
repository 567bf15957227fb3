import { fireEvent, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { BACKWARDS, DOCUMENTS, onTheBench, PLAIN, SIX } from "../../../fixtures";
import { Refuses, serving } from "../../../fixtures/server";
import { LineTable } from "../LineTable";
import { SweepStrip } from "../SweepStrip";
import { RatioWords } from "./RatioWords";
import { StageActions } from "./StageActions";
import { StageStrip } from "./StageStrip";
import { Turning } from "./Turning";
import { WheelPanel } from "./WheelPanel";

const STAGE = "drive.branches[0].stages[0]";

describe("the ratio in words", () => {
  it("goes both ways, reduced, and overall", () => {
    const { container } = onTheBench(<RatioWords path={STAGE} />);
    const text = container.textContent ?? "";
    expect(text).toContain("56 : 15 = 3.73 : 1");
    expect(text).toContain("the driven 0.268 times for one of the driver");
    expect(text).toContain("7.47 = 112/15");
  });

  it("asks about another one that somebody was told", () => {
    const { edit } = onTheBench(<RatioWords path={STAGE} />);
    const field = screen.getByLabelText(/Told another ratio/);
    fireEvent.change(field, { target: { value: "4,2" } });
    expect(edit.wish).toHaveBeenLastCalledWith({ told: 4.2 });
    fireEvent.change(field, { target: { value: "about four" } });
    expect(edit.wish).toHaveBeenLastCalledWith({ told: undefined });
  });
});

describe("turning", () => {
  it("says nothing where it runs forwards", () => {
    expect(onTheBench(<Turning />).container.querySelector("[data-turning]")).toBeNull();
  });

  it("offers what helps, and does it", () => {
    const { document } = onTheBench(<Turning />, { live: BACKWARDS });
    fireEvent.click(screen.getByRole("button", { name: /Do this: Swap two leads/ }));
    expect(document().drive.branches[0]?.source.reversed).toBe(true);
    fireEvent.click(screen.getByRole("button", { name: /Do this: Put one idler/ }));
    expect(document().drive.branches[0]?.stages?.[0]?.idlers).toEqual([20]);
  });
});

describe("the strip of stages", () => {
  it("reads from source to ground with the ratio of each", () => {
    const { container } = onTheBench(<StageStrip onSweep={() => undefined} />);
    const chips = [...container.querySelectorAll("[data-chip]")].map((e) => e.textContent);
    expect(chips).toEqual(["battery 25.2 V", "Gears 15 → 56 3.73", "Belt 18 → 36 2.00"]);
    expect(container.querySelector("[data-overall]")?.textContent).toBe("= 7.47 : 1");
  });

  it("tells branches apart", () => {
    const { container } = onTheBench(<StageStrip onSweep={() => undefined} />, { live: SIX }, DOCUMENTS.six);
    expect(container.textContent).toContain("branch 1:");
    expect(container.textContent).toContain("+ branch 2:");
    expect(container.textContent).toContain("joined:");
  });

  it("chooses the supply, and steps its cells by key", () => {
    const onSweep = vi.fn();
    const { edit } = onTheBench(<StageStrip onSweep={onSweep} />);
    const chip = screen.getByRole("button", { name: /battery/ });
    fireEvent.click(chip);
    expect(edit.select).toHaveBeenCalledWith({ path: "drive.supply", member: "supply" });
    fireEvent.keyDown(chip, { key: "ArrowUp" });
    fireEvent.keyDown(chip, { key: "x" });
    expect(onSweep.mock.calls).toEqual([[1]]);
  });

  it("chooses a stage", () => {
    const { edit } = onTheBench(<StageStrip onSweep={() => undefined} />);
    fireEvent.click(screen.getByRole("button", { name: /Belt/ }));
    expect(edit.select).toHaveBeenCalledWith({ path: "drive.stages[0]", member: "driver" });
  });
});

describe("stages", () => {
  it("are added, doubled, moved and removed, with the next one chosen", () => {
    const { document, edit } = onTheBench(<StageActions path={STAGE} />);
    fireEvent.click(screen.getByRole("button", { name: "Double" }));
    expect(document().drive.branches[0]?.stages).toHaveLength(2);
    expect(edit.select).toHaveBeenLastCalledWith({ path: "drive.branches[0].stages[1]", member: "driver" });
    fireEvent.change(screen.getByLabelText("Add a stage after this"), { target: { value: "speeds" } });
    expect(document().drive.stages?.[0]?.kind).toBe("speeds");
    fireEvent.click(screen.getByRole("button", { name: "Remove this stage" }));
    expect(document().drive.branches[0]?.stages).toHaveLength(1);
  });

  it("become another kind as the core says it, or tell why they cannot", async () => {
    const chain = { kind: "chain", driver_teeth: 15, driven_teeth: 56 };
    const address = "POST /api/changes/kind/";
    const calls = serving({ [address]: { changes: { [STAGE]: chain } } });
    const { document, edit } = onTheBench(<StageActions path={STAGE} />);
    fireEvent.change(screen.getByLabelText("Change the kind"), { target: { value: "chain" } });
    await vi.waitFor(() => expect(document().drive.branches[0]?.stages?.[0]).toEqual(chain));
    expect(calls.at(-1)?.body).toMatchObject({ path: STAGE, kind: "chain" });
    expect(edit.select).toHaveBeenLastCalledWith({ path: STAGE, member: "driver" });
    serving({ [address]: new Refuses({ detail: "put one among the stages that all branches share" }) });
    fireEvent.change(screen.getByLabelText("Change the kind"), { target: { value: "speeds" } });
    expect((await screen.findByRole("alert")).textContent).toContain("all branches share");
    expect(document().drive.branches[0]?.stages?.[0]).toEqual(chain);
  });
});

describe("the panel of a wheel", () => {
  it("is empty while the document no longer has what the figures still show", () => {
    const [wheel] = PLAIN.view.line.rows[0]?.wheels ?? [];
    if (!wheel) throw new Error("a wheel is wanted");
    const bare = { ...DOCUMENTS.plain, drive: { ...DOCUMENTS.plain.drive, branches: [{ source: {} }] } };
    expect(
      onTheBench(<WheelPanel wheel={wheel} />, {}, bare).container.querySelector("[data-teeth]"),
    ).toBeNull();
    expect(onTheBench(<WheelPanel wheel={wheel} />).container.querySelector("[data-teeth]")).not.toBeNull();
  });
});

describe("the sweep", () => {
  it("has the present size in the middle and takes another", () => {
    const { edit, container } = onTheBench(<SweepStrip />);
    const heads = [...container.querySelectorAll("thead button")].map((e) => e.textContent);
    expect(heads).toHaveLength(13);
    expect(heads[6]).toBe("15");
    fireEvent.click(screen.getByRole("button", { name: "Take 14 teeth" }));
    expect(edit.set).toHaveBeenCalledWith("drive.branches[0].stages[0].driver_teeth", 14);
  });

  it("says what to do where nothing is chosen", () => {
    expect(onTheBench(<SweepStrip />, { sweep: null, selected: null }).container.textContent).toContain(
      "Choose a wheel",
    );
  });
});

describe("the drawing as a table", () => {
  it("has every shaft and every stage with its figures", () => {
    const { container } = onTheBench(<LineTable live={PLAIN} flow={PLAIN.flows.at(-1)} />);
    const [shafts, stages] = [...container.querySelectorAll("table")];
    expect(shafts?.querySelectorAll("tbody tr")).toHaveLength(3);
    expect(shafts?.textContent).toContain("anticlockwise");
    expect(stages?.textContent).toContain("Gear pair");
    expect(stages?.textContent).toContain("driver 15, driven 56");
    expect(stages?.textContent).toContain("97.0 %, assumed");
  });

  it("says where mounting decides the sense", () => {
    const { container } = onTheBench(
      <LineTable live={SIX} flow={SIX.flows.at(-1)} />,
      { live: SIX },
      DOCUMENTS.six,
    );
    expect(container.textContent).toContain("as mounted");
    expect(container.textContent).toContain("Planetary stack");
  });
});
