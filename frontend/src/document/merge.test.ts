import { describe, expect, it } from "vitest";
import { merge } from "./merge";

const BASE = {
  name: "Knot",
  vehicle: { mass: "12 kg", drag: { value: "0.4", origin: "assumed" } },
  drive: { stages: [{ kind: "gear", teeth: 15 }, { kind: "chain" }] },
};

describe("two people's changes", () => {
  it("are both kept where they touch other values", () => {
    const mine = { ...BASE, vehicle: { ...BASE.vehicle, mass: "13 kg" } };
    const theirs = { ...BASE, drive: { stages: [{ kind: "gear", teeth: 16 }, { kind: "chain" }] } };
    const { document, collisions } = merge(BASE, mine, theirs);
    expect(collisions).toEqual([]);
    expect(document).toEqual({ ...theirs, vehicle: mine.vehicle });
  });

  it("collide where both changed one value, and only there", () => {
    const mine = { ...BASE, name: "Dunlin", vehicle: { ...BASE.vehicle, mass: "13 kg" } };
    const theirs = { ...BASE, vehicle: { ...BASE.vehicle, mass: "14 kg" } };
    const { document, collisions } = merge(BASE, mine, theirs);
    expect(collisions).toEqual([{ path: "vehicle.mass", mine: "13 kg", theirs: "14 kg" }]);
    expect(document).toEqual(mine);
    expect(merge(BASE, mine, theirs, "theirs").document).toEqual({ ...mine, vehicle: theirs.vehicle });
  });

  it("agree where both made the same of it", () => {
    const both = { ...BASE, name: "Dunlin" };
    expect(merge(BASE, both, { ...both })).toEqual({ document: both, collisions: [] });
  });

  it("take away and add", () => {
    const { drive: _, ...mine } = BASE;
    const theirs = { ...BASE, notes: "wet" };
    expect(merge<unknown>(BASE, mine, theirs)).toEqual({
      document: { name: "Knot", vehicle: BASE.vehicle, notes: "wet" },
      collisions: [],
    });
  });

  it("do not mix a quantity's value with another's origin", () => {
    const mine = { ...BASE, vehicle: { ...BASE.vehicle, drag: { value: "0.5", origin: "assumed" } } };
    const theirs = { ...BASE, vehicle: { ...BASE.vehicle, drag: { value: "0.4", origin: "measured" } } };
    expect(merge(BASE, mine, theirs).collisions.length).toBe(2);
    expect(merge(BASE, mine, theirs).document).toEqual(mine);
  });

  it("of a list that grew on one side and changed on the other collide as a whole", () => {
    const mine = { ...BASE, drive: { stages: [...BASE.drive.stages, { kind: "worm" }] } };
    const theirs = { ...BASE, drive: { stages: [{ kind: "gear", teeth: 16 }, { kind: "chain" }] } };
    expect(merge<unknown>(BASE, mine, theirs).document).toEqual(mine);
    expect(merge<unknown>(BASE, mine, theirs).collisions.length).toBeGreaterThan(0);
  });
});
