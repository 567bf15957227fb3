import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { at, type DesignDocument } from "../../design/document";
import { show, useUnits } from "../../fields/units";
import { useDocument, useEdit, useFigures } from "../context";
import { Field, WholeNumber } from "../Field";
import { StageButtons } from "./SelectedPanel";
import { SupplyFields } from "./SupplyFields";
import { BRANCH, SOURCE, withSource, withSupply } from "./source";
import { TorqueCurve } from "./TorqueCurve";

/** Motor or engine of the first branch, its controller or clutch, and the supply. */
export function SourcePanel() {
  const document = useDocument();
  const engine = at(document, `${SOURCE}.kind`) === "engine";
  return (
    <>
      <Heading as="h2" size="sm">
        {engine ? "Engine and clutch" : "Motor and supply"}
      </Heading>
      <HardStart />
      <Box display="grid" gap="2">
        <Choice
          label="Source"
          value={engine ? "engine" : "motor"}
          options={{ motor: "electric motor", engine: "engine" }}
          change={withSource}
        />
        {engine ? <EngineFields /> : <MotorFields />}
        <Flex gap="2">
          <WholeNumber path={`${BRANCH}.count`} label={engine ? "Engines a unit" : "Motors a unit"} />
          <WholeNumber path="drive.units" label="Drive units" />
        </Flex>
        <Field path={`${SOURCE}.max_speed`} label="Safe maximum speed" dimension="angular speed" optional />
        {engine ? (
          <Field path={`${SOURCE}.inertia`} label="Inertia" dimension="inertia" optional />
        ) : (
          <>
            <Field
              path={`${SOURCE}.rotor_inertia`}
              label="Inertia of the rotor"
              dimension="inertia"
              optional
            />
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
            <Choice
              label="Supply"
              value={String(at(document, "drive.supply.kind") ?? "")}
              options={{ battery: "battery", panel: "light panel", bench: "bench supply" }}
              change={withSupply}
            />
            <SupplyFields />
          </>
        )}
      </Box>
      <StageButtons path={SOURCE} />
      <Box fontSize="xs" color="ink.second" mt="3">
        {engine
          ? "Never run an engine above its safe speed or defeat its governor; mind the fumes. The maker's instructions come first."
          : "Charge lithium packs watched and in a fire-safe place; put a fuse close to the battery. The makers' instructions come first."}
      </Box>
    </>
  );
}

function HardStart() {
  const { live } = useFigures();
  const units = useUnits();
  const current = live.flows.find((f) => f.moment === "hard start")?.current;
  if (current === null || current === undefined) return null;
  return (
    <Box fontSize="sm" color="ink.second" my="1">
      In a hard start each motor carries{" "}
      <Box as="strong" fontFamily="mono" color="ink">
        {Object.values(show(units, "current", current)).join(" ")}
      </Box>
      .
    </Box>
  );
}

interface ChoiceProps {
  label: string;
  value: string;
  options: Record<string, string>;
  change: (document: DesignDocument, to: string) => DesignDocument;
}

function Choice({ label, value, options, change }: ChoiceProps) {
  const { edit, readOnly } = useEdit();
  return (
    <Box as="label" fontSize="sm" color="ink.second">
      {label}{" "}
      <select
        className="plain small"
        disabled={readOnly}
        value={value}
        onChange={(event) => edit((document) => change(document, event.target.value))}
      >
        {Object.entries(options).map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </Box>
  );
}

const CONSTANTS = { kv: "600 rpm/V", resistance: "60 mohm", no_load_current: "1 A" };
const BENCH_POINTS = {
  nominal_voltage: "12 V",
  free_speed: "7400 rpm",
  free_current: "0.5 A",
  stall_torque: "0.11 N*m",
  stall_current: "8.2 A",
};

function MotorFields() {
  const document = useDocument();
  const { set, readOnly } = useEdit();
  const byConstants = at(document, `${SOURCE}.constants`) !== undefined;
  const switchGiven = () => {
    const source = { ...(at(document, SOURCE) as Record<string, unknown>) };
    delete source[byConstants ? "constants" : "bench_points"];
    set(SOURCE, { ...source, ...(byConstants ? { bench_points: BENCH_POINTS } : { constants: CONSTANTS }) });
  };
  const given = `${SOURCE}.${byConstants ? "constants" : "bench_points"}`;
  const fields: [string, string, string][] = byConstants
    ? [
        ["kv", "Speed constant", "speed constant"],
        ["resistance", "Winding resistance", "resistance"],
        ["no_load_current", "No-load current", "current"],
      ]
    : [
        ["nominal_voltage", "Nominal voltage", "voltage"],
        ["free_speed", "Free speed", "angular speed"],
        ["free_current", "Free current", "current"],
        ["stall_torque", "Stall torque", "torque"],
        ["stall_current", "Stall current", "current"],
      ];
  return (
    <>
      <TorqueCurve />
      {fields.map(([key, label, dimension]) => (
        <Field key={key} path={`${given}.${key}`} label={label} dimension={dimension} />
      ))}
      {!readOnly && (
        <Button size="xs" onClick={switchGiven}>
          {byConstants ? "Give bench points instead" : "Give constants instead"}
        </Button>
      )}
    </>
  );
}

function EngineFields() {
  return (
    <>
      <TorqueCurve />
      <Field
        path={`${BRANCH}.clutch.engagement_speed`}
        label="Clutch engages fully at"
        dimension="angular speed"
      />
    </>
  );
}
