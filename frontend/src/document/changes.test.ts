import { expect, it } from "vitest";
import { holds, withChanges } from "./changes";
import type { DesignDocument } from "./document";

const DOCUMENT = {
  drive: { branches: [{ stages: [{ kind: "gear", driver_teeth: 15, driver_material: "steel" }] }] },
} as unknown as DesignDocument;
const STAGE = "drive.branches[0].stages[0]";

it("null takes a value out", () => {
  const changes = { [`${STAGE}.driver_teeth`]: 12, [`${STAGE}.driver_material`]: null };
  const changed = withChanges(DOCUMENT, changes);
  expect(changed.drive.branches[0]?.stages?.[0]).toEqual({ kind: "gear", driver_teeth: 12 });
  expect(holds(DOCUMENT, changes)).toBe(false);
  expect(holds(changed, changes)).toBe(true);
});
