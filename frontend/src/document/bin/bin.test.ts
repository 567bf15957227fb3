import { describe, expect, it } from "vitest";
import { type Bin, bin, emptyBin, type PartDocument, partOf, partsOf, toSend } from "./bin";

const gear = (teeth: number, more: object = {}): PartDocument => ({
  id: `g${teeth}`,
  kind: "gear",
  teeth,
  ...more,
});
const loaded = (...parts: PartDocument[]): Bin =>
  bin(emptyBin(), { type: "loaded", parts: parts.map((document) => ({ version: 1, document })) });
const edited = (state: Bin, before: PartDocument | null, after: PartDocument | null): Bin =>
  bin(state, { type: "edit", changes: [{ id: (before ?? after)?.id ?? "", before, after }] });

describe("the bin", () => {
  it("shows what is typed over what is stored, and new parts last", () => {
    let state = loaded(gear(12), gear(14));
    state = edited(state, gear(12), gear(12, { owned: 2 }));
    state = edited(state, null, gear(20));
    expect(partsOf(state).map((p) => [p.id, p.owned])).toEqual([
      ["g12", 2],
      ["g14", undefined],
      ["g20", undefined],
    ]);
    expect(toSend(state).map((s) => [s.id, s.base])).toEqual([
      ["g12", 1],
      ["g20", 0],
    ]);
  });

  it("goes back and forth, also over what has been saved meanwhile", () => {
    const first = gear(12);
    const second = gear(12, { owned: 2 });
    let state = edited(loaded(first), first, second);
    state = bin(state, { type: "saved", sent: toSend(state), parts: [{ version: 2, document: second }] });
    expect(toSend(state)).toEqual([]);
    state = bin(state, { type: "undo" });
    expect(toSend(state)).toEqual([{ id: "g12", base: 2, document: first }]);
    state = bin(state, { type: "redo" });
    expect(toSend(state)).toEqual([]);
    expect(partOf(state, "g12")).toEqual(second);
  });

  it("takes out and brings back", () => {
    let state = edited(loaded(gear(12)), gear(12), null);
    expect(partsOf(state)).toEqual([]);
    expect(toSend(state)).toEqual([{ id: "g12", base: 1, document: null }]);
    state = bin(state, { type: "saved", sent: toSend(state), parts: [] });
    state = bin(state, { type: "undo" });
    expect(toSend(state)).toEqual([{ id: "g12", base: 0, document: gear(12) }]);
  });

  it("keeps what was typed while something older was being saved", () => {
    const [one, two] = [gear(12, { owned: 1 }), gear(12, { owned: 2 })];
    let state = edited(loaded(gear(12)), gear(12), one);
    const sent = toSend(state);
    state = edited(state, one, two);
    state = bin(state, { type: "saved", sent, parts: [{ version: 2, document: one }] });
    expect(partOf(state, "g12")).toEqual(two);
    expect(toSend(state)).toEqual([{ id: "g12", base: 2, document: two }]);
  });

  it("holds back what cannot be read until it is changed", () => {
    const bad = gear(3);
    let state = edited(loaded(), null, bad);
    const fault = { path: "teeth", problem: "3 given", remedy: "give more" };
    state = bin(state, { type: "refused", faults: new Map([["g3", [fault]]]) });
    expect(toSend(state)).toEqual([]);
    expect(partsOf(state)).toEqual([bad]);
    state = edited(state, bad, { ...bad, teeth: 13 });
    expect(toSend(state)).toHaveLength(1);
  });

  it("asks where somebody else has changed the same part", () => {
    const [mine, theirs] = [gear(12, { owned: 1 }), gear(12, { owned: 9 })];
    let state = edited(loaded(gear(12)), gear(12), mine);
    state = bin(state, { type: "stale", ids: ["g12"], present: [{ version: 5, document: theirs }] });
    expect(toSend(state)).toEqual([]);
    const kept = bin(state, { type: "keep mine" });
    expect(toSend(kept)).toEqual([{ id: "g12", base: 5, document: mine }]);
    const taken = bin(state, { type: "take theirs" });
    expect(partsOf(taken)).toEqual([theirs]);
  });
});
