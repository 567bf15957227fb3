import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { at } from "../../design/document";
import { show, useUnits } from "../../fields/units";
import { useDocument, useEdit, useFigures } from "../context";
import { Field, WholeNumber } from "../Field";
import { StageButtons } from "./SelectedPanel";

const BRANCH = "drive.branches[0]";
const SOURCE = `${BRANCH}.source`;
const CONSTANTS = { kv: "600 rpm/V", resistance: "60 mohm", no_load_current: "1 A" };
const BENCH_POINTS = {
  nominal_voltage: "12 V",
  free_speed: "7400 rpm",
  free_current: "0.5 A",
  stall_torque: "0.11 N*m",
  stall_current: "8.2 A",
};
const BATTERY = { kind: "battery", open_circuit_voltage: "12.6 V", resistance: "20 mohm" };
const BENCH = { kind: "bench", voltage: "12 V" };

/** Motor, controller and supply. */
export function MotorPanel() {
  const document = useDocument();
  const { live } = useFigures();
  const { set, readOnly } = useEdit();
  const units = useUnits();
  const byConstants = at(document, `${SOURCE}.constants`) !== undefined;
  const battery = at(document, "drive.supply.kind") === "battery";
  const start = live.flows.find((f) => f.moment === "hard start");
  const switchGiven = () => {
    const source = { ...(at(document, SOURCE) as Record<string, unknown>) };
    delete source[byConstants ? "constants" : "bench_points"];
    set(SOURCE, { ...source, ...(byConstants ? { bench_points: BENCH_POINTS } : { constants: CONSTANTS }) });
  };
  return (
    <>
      <Heading as="h2" size="sm">
        Motor and supply
      </Heading>
      {start && (
        <Box fontSize="sm" color="ink.second" my="1">
          In a hard start each motor carries{" "}
          <Box as="strong" fontFamily="mono" color="ink">
            {Object.values(show(units, "current", start.current)).join(" ")}
          </Box>
          .
        </Box>
      )}
      <Box display="grid" gap="2">
        {byConstants ? (
          <>
            <Field path={`${SOURCE}.constants.kv`} label="Speed constant" dimension="speed constant" />
            <Field
              path={`${SOURCE}.constants.resistance`}
              label="Winding resistance"
              dimension="resistance"
            />
            <Field path={`${SOURCE}.constants.no_load_current`} label="No-load current" dimension="current" />
          </>
        ) : (
          <>
            <Field
              path={`${SOURCE}.bench_points.nominal_voltage`}
              label="Nominal voltage"
              dimension="voltage"
            />
            <Field path={`${SOURCE}.bench_points.free_speed`} label="Free speed" dimension="angular speed" />
            <Field path={`${SOURCE}.bench_points.free_current`} label="Free current" dimension="current" />
            <Field path={`${SOURCE}.bench_points.stall_torque`} label="Stall torque" dimension="torque" />
            <Field path={`${SOURCE}.bench_points.stall_current`} label="Stall current" dimension="current" />
          </>
        )}
        {!readOnly && (
          <Button size="xs" onClick={switchGiven}>
            {byConstants ? "Give bench points instead" : "Give constants instead"}
          </Button>
        )}
        <Flex gap="2">
          <WholeNumber path={`${BRANCH}.count`} label="Motors a unit" />
          <WholeNumber path="drive.units" label="Drive units" />
        </Flex>
        <Field
          path={`${BRANCH}.controller.current_limit`}
          label="Controller's current limit"
          dimension="current"
          optional
        />
        <Field
          path={`${BRANCH}.controller.resistance`}
          label="Controller and leads"
          dimension="resistance"
          optional
        />
        <Box as="label" fontSize="sm" color="ink.second">
          Supply{" "}
          <select
            className="plain small"
            disabled={readOnly}
            value={battery ? "battery" : "bench"}
            onChange={(event) => set("drive.supply", event.target.value === "battery" ? BATTERY : BENCH)}
          >
            <option value="battery">battery</option>
            <option value="bench">bench supply</option>
          </select>
        </Box>
        {battery ? (
          <>
            <Field
              path="drive.supply.open_circuit_voltage"
              label="Open-circuit voltage"
              dimension="voltage"
            />
            <Field
              path="drive.supply.resistance"
              label="Internal resistance"
              dimension="resistance"
              optional
            />
            <Field
              path="drive.supply.current_limit"
              label="Fuse or protection"
              dimension="current"
              optional
            />
            <Field path="drive.supply.capacity" label="Capacity" dimension="charge" optional />
          </>
        ) : (
          <Field path="drive.supply.voltage" label="Voltage" dimension="voltage" />
        )}
      </Box>
      <StageButtons path={SOURCE} />
      <Box fontSize="xs" color="ink.second" mt="3">
        Charge lithium packs watched and in a fire-safe place; put a fuse close to the battery. The makers'
        instructions come first.
      </Box>
    </>
  );
}
