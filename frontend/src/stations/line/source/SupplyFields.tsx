import { Button } from "@chakra-ui/react";
import { useDocument, useEdit } from "../../../document/context";
import { at } from "../../../document/document";
import { Field, WholeNumber } from "../../../document/Field";
import { SupplyCurve } from "./SupplyCurve";
import { withCells } from "./source";

/** Battery as a whole or by its cells, light panel by its three points, or bench supply. */
export function SupplyFields() {
  const document = useDocument();
  const kind = at(document, "drive.supply.kind");
  if (kind === "panel") {
    return (
      <>
        <SupplyCurve />
        <Field path="drive.supply.short_circuit_current" label="Current when shorted" dimension="current" />
        <Field path="drive.supply.max_power_current" label="Current at most power" dimension="current" />
        <Field path="drive.supply.max_power_voltage" label="Voltage at most power" dimension="voltage" />
        <Field path="drive.supply.open_circuit_voltage" label="Voltage when open" dimension="voltage" />
      </>
    );
  }
  if (kind === "bench") return <Field path="drive.supply.voltage" label="Voltage" dimension="voltage" />;
  return <BatteryFields />;
}

function BatteryFields() {
  const document = useDocument();
  const { edit, readOnly } = useEdit();
  const byCells = at(document, "drive.supply.cells") !== undefined;
  const cells = "drive.supply.cells";
  return (
    <>
      {byCells ? (
        <>
          <WholeNumber path={`${cells}.series`} label="Cells in series" />
          <WholeNumber path={`${cells}.parallel`} label="Rows in parallel" />
          <Field path={`${cells}.cell_voltage`} label="Voltage of a cell, at rest" dimension="voltage" />
          <Field
            path={`${cells}.cell_resistance`}
            label="Resistance of a cell"
            dimension="resistance"
            optional
          />
          <Field path={`${cells}.cell_capacity`} label="Capacity of a cell" dimension="charge" optional />
          <Field
            path={`${cells}.extra_resistance`}
            label="Leads and connectors"
            dimension="resistance"
            optional
          />
        </>
      ) : (
        <>
          <Field path="drive.supply.open_circuit_voltage" label="Open-circuit voltage" dimension="voltage" />
          <Field path="drive.supply.resistance" label="Internal resistance" dimension="resistance" optional />
          <Field path="drive.supply.capacity" label="Capacity" dimension="charge" optional />
        </>
      )}
      <Field
        path="drive.supply.current_limit"
        label="Current limit, by its protection"
        dimension="current"
        optional
      />
      {!readOnly && (
        <Button size="xs" onClick={() => edit((present) => withCells(present, !byCells))}>
          {byCells ? "Give the pack as a whole instead" : "Give cells instead"}
        </Button>
      )}
    </>
  );
}
