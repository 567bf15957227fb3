/** Changing what drives a branch and what feeds it all. Pure; what the other kind had is kept by undo. */
import { type DesignDocument, withValue } from "../../../document/document";

export const MOTOR = {
  kind: "motor",
  name: "motor",
  constants: { kv: "600 rpm/V", resistance: "60 mohm", no_load_current: "1 A" },
};
const ENGINE = {
  kind: "engine",
  name: "engine",
  torque_curve: [
    ["1800 rpm", "6 N*m"],
    ["2800 rpm", "7 N*m"],
    ["3600 rpm", "6 N*m"],
    ["3900 rpm", "0 N*m"],
  ],
};
const CLUTCH = { engagement_speed: "2200 rpm" };
const SUPPLIES: Record<string, Record<string, unknown> & { kind: string }> = {
  battery: { kind: "battery", open_circuit_voltage: "12.6 V", resistance: "20 mohm" },
  panel: {
    kind: "panel",
    short_circuit_current: "1.4 A",
    open_circuit_voltage: "22 V",
    max_power_voltage: "17.8 V",
    max_power_current: "1.3 A",
  },
  bench: { kind: "bench", voltage: "12 V" },
};

/** A motor wants a supply and may have a controller; an engine wants a clutch and no supply. */
export function withSource(document: DesignDocument, branch: string, kind: string): DesignDocument {
  const engine = kind === "engine";
  let changed = withValue(document, `${branch}.source`, engine ? ENGINE : MOTOR);
  changed = withValue(changed, `${branch}.clutch`, engine ? CLUTCH : undefined);
  if (engine) changed = withValue(changed, `${branch}.controller`, undefined);
  const motors = changed.drive.branches.some((branch) => branch.source.kind === "motor");
  return withValue(changed, "drive.supply", motors ? (changed.drive.supply ?? SUPPLIES.battery) : undefined);
}

export function withSupply(document: DesignDocument, kind: string): DesignDocument {
  return withValue(document, "drive.supply", SUPPLIES[kind]);
}

const CELLS = { series: 3, parallel: 1, cell_voltage: "4.2 V", cell_resistance: "7 mohm" };

/** A battery as a whole, or by its cells. */
export function withCells(document: DesignDocument, byCells: boolean): DesignDocument {
  const { kind, current_limit } = document.drive.supply ?? { kind: "battery" };
  const limit = current_limit === undefined ? {} : { current_limit };
  return withValue(document, "drive.supply", {
    ...(byCells ? { kind, cells: CELLS } : SUPPLIES.battery),
    ...limit,
  });
}
