import { describe, expect, it } from "vitest";
import type { DesignDocument } from "../../../document/document";
import { withCells, withSource, withSupply } from "./source";

const MOTOR: DesignDocument = {
  format: "ydrometer-design",
  version: 1,
  vehicle: {},
  drive: {
    supply: { kind: "battery", open_circuit_voltage: "12 V", current_limit: "40 A" },
    branches: [{ source: { kind: "motor" }, controller: { current_limit: "20 A" }, stages: [] }],
  },
};

describe("changing the source", () => {
  it("an engine comes with a clutch and without supply and controller", () => {
    const changed = withSource(MOTOR, "drive.branches[0]", "engine");
    expect(changed.drive.branches[0]?.source.kind).toBe("engine");
    expect(changed.drive.branches[0]?.clutch).toBeDefined();
    expect(changed.drive.branches[0]?.controller).toBeUndefined();
    expect(changed.drive.supply).toBeUndefined();
  });

  it("a motor gets a battery again, and no clutch", () => {
    const made = withSource(withSource(MOTOR, "drive.branches[0]", "engine"), "drive.branches[0]", "motor");
    expect(made.drive.branches[0]?.clutch).toBeUndefined();
    expect(made.drive.supply?.kind).toBe("battery");
  });

  it("beside a motor in another branch the supply stays", () => {
    const two = {
      ...MOTOR,
      drive: { ...MOTOR.drive, branches: [...MOTOR.drive.branches, ...MOTOR.drive.branches] },
    };
    expect(withSource(two, "drive.branches[0]", "engine").drive.supply).toEqual(MOTOR.drive.supply);
  });
});

describe("changing the supply", () => {
  it("each kind has what it needs", () => {
    expect(withSupply(MOTOR, "panel").drive.supply).toHaveProperty("max_power_voltage");
    expect(withSupply(MOTOR, "bench").drive.supply).toEqual({ kind: "bench", voltage: "12 V" });
  });

  it("cells take the place of the pack's figures; the fuse stays", () => {
    const cells = withCells(MOTOR, true).drive.supply;
    expect(cells).toHaveProperty("cells");
    expect(cells).not.toHaveProperty("open_circuit_voltage");
    expect(cells?.current_limit).toBe("40 A");
    expect(withCells(withCells(MOTOR, true), false).drive.supply).not.toHaveProperty("cells");
  });

  it("leaves the document it was given as it is", () => {
    const before = structuredClone(MOTOR);
    withSource(MOTOR, "drive.branches[0]", "engine");
    withCells(MOTOR, true);
    expect(MOTOR).toEqual(before);
  });
});
