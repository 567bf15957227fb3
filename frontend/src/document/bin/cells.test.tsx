import { describe, expect, it } from "vitest";
import { INCH, PART_KINDS, UNITS } from "../../fixtures";
import { calledPart, cellText, freeId, withCell } from "./cells";

const kind = (name: string) => PART_KINDS.find((k) => k.kind === name) as (typeof PART_KINDS)[number];
const column = (name: string, path: string) =>
  kind(name).columns.find((c) => c.path === path) as (typeof PART_KINDS)[number]["columns"][number];
const gear = { id: "g", kind: "gear", teeth: 14, module: "1 mm", bore: "1/4 in" };

describe("cells of the bin", () => {
  it("leave the unit to the head where it is the same", () => {
    expect(cellText(UNITS, column("gear", "module"), gear)).toBe("1");
    expect(cellText(UNITS, column("gear", "bore"), gear)).toBe("1/4 in");
    expect(cellText(INCH, column("gear", "bore"), gear)).toBe("1/4");
    expect(cellText(INCH, column("gear", "module"), gear)).toBe("1 mm");
    expect(cellText(UNITS, column("gear", "width"), gear)).toBe("");
  });

  it("take a bare number in the unit of the head, and any other as typed", () => {
    expect(withCell(UNITS, column("gear", "width"), gear, "10").width).toBe("10 mm");
    expect(withCell(INCH, column("gear", "width"), gear, "3/8").width).toBe("3/8 in");
    expect(withCell(UNITS, column("gear", "width"), gear, "0.4 in").width).toBe("0.4 in");
    expect(withCell(UNITS, column("gear", "teeth"), gear, "16").teeth).toBe(16);
    expect(withCell(UNITS, column("gear", "teeth"), gear, "many").teeth).toBe("many");
    expect(withCell(UNITS, column("gear", "price"), gear, "3.5").price).toBe(3.5);
  });

  it("lists and curves go there and back", () => {
    const box = withCell(UNITS, column("gearbox", "reductions"), { id: "x", kind: "gearbox" }, "4 × 3.5");
    expect(box.reductions).toEqual([4, 3.5]);
    expect(cellText(UNITS, column("gearbox", "reductions"), box)).toBe("4 3.5");
    const curve = column("engine", "source.torque_curve");
    const engine = withCell(UNITS, curve, { id: "e", kind: "engine" }, "1800 rpm 6 N*m; 2400 rpm 5 N*m");
    expect(engine.source).toEqual({
      torque_curve: [
        ["1800 rpm", "6 N*m"],
        ["2400 rpm", "5 N*m"],
      ],
    });
    expect(cellText(UNITS, curve, engine)).toBe("1800 rpm 6 N*m; 2400 rpm 5 N*m");
  });

  it("an emptied cell leaves nothing empty around it", () => {
    const limit = column("motor", "controller.current_limit");
    const motor = { id: "m", kind: "motor", controller: { current_limit: "60 A" } };
    expect(withCell(UNITS, limit, motor, " ")).toEqual({ id: "m", kind: "motor" });
  });

  it("parts are called by their names, or by what tells them apart", () => {
    expect(calledPart(UNITS, kind("gear"), gear)).toBe("gear 14 1");
    expect(calledPart(UNITS, kind("gear"), { ...gear, name: "the noisy one" })).toBe("the noisy one");
    expect(freeId("gear", new Set(["gear-1", "gear-2"]))).toBe("gear-3");
  });
});
