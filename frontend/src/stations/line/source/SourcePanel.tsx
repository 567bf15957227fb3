import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { useDocument, useEdit, useFigures } from "../../../document/context";
import { at, type DesignDocument } from "../../../document/document";
import { Field, WholeNumber } from "../../../document/Field";
import { addBranch, branchPath, removeBranch } from "../../../document/stages";
import { show, useUnits } from "../../../ui/fields/units";
import { FromBin } from "../../shared/FromBin";
import { Ratings } from "../../shared/Strength";
import { StageActions, useChange } from "../selected/StageActions";
import { SupplyFields } from "./SupplyFields";
import { withSource, withSupply } from "./source";
import { TorqueCurve } from "./TorqueCurve";

/** Motor or engine of a branch, its controller or clutch, and the supply. */
export function SourcePanel({ path }: { path: string }) {
  const document = useDocument();
  const branch = branchPath(path);
  const number = Number(/\d+/.exec(branch)?.[0] ?? 0);
  const engine = at(document, `${path}.kind`) === "engine";
  const several = document.drive.branches.length > 1;
  return (
    <>
      <Heading as="h2" size="sm">
        {engine ? "Engine and clutch" : "Motor and supply"}
        {several && `, branch ${number + 1}`}
      </Heading>
      <HardStart branch={number} />
      <Box display="grid" gap="2">
        <FromBin
          label={engine ? "Take an engine of the bin" : "Take a motor of the bin"}
          kinds={[engine ? "engine" : "motor"]}
          path={path}
        />
        <Choice
          label="Source"
          value={engine ? "engine" : "motor"}
          options={{ motor: "electric motor", engine: "engine" }}
          change={(old, kind) => withSource(old, branch, kind)}
        />
        {engine ? <EngineFields branch={number} /> : <MotorFields branch={number} />}
        <Flex gap="2">
          <WholeNumber path={`${branch}.count`} label={engine ? "Engines a unit" : "Motors a unit"} />
          <WholeNumber path="drive.units" label="Drive units" />
        </Flex>
        <Field path={`${path}.max_speed`} label="Safe maximum speed" dimension="angular speed" optional />
        <Ratings
          kind={engine ? "engine" : "motor"}
          path={path}
          title={`What the ${engine ? "engine's shaft" : "motor"} stands`}
        />
        {engine ? (
          <Field path={`${path}.inertia`} label="Inertia" dimension="inertia" optional />
        ) : (
          <>
            <Field path={`${path}.rotor_inertia`} label="Inertia of the rotor" dimension="inertia" optional />
            <FromBin label="Take a controller of the bin" kinds={["controller"]} path={path} />
            <Field
              path={`${branch}.controller.current_limit`}
              label="Controller's current limit"
              dimension="current"
              optional
            />
            <Field
              path={`${branch}.controller.resistance`}
              label="Controller and leads"
              dimension="resistance"
              optional
            />
            <Ratings kind="controller" path={`${branch}.controller`} title="What the controller stands" />
            <Ratings kind="wire" path={branch} title="Its wire" />
            <Supply />
          </>
        )}
      </Box>
      <BranchActions number={number} several={several} />
      <StageActions path={path} />
      {engine ? (
        <Box fontSize="xs" color="ink.second" mt="3">
          Never run an engine above its safe speed or defeat its governor; mind the fumes. The maker's
          instructions come first.
        </Box>
      ) : (
        <BatteryCaution />
      )}
    </>
  );
}

const SUPPLIES = { battery: "battery", panel: "light panel", bench: "bench supply" };

/** Which supply it is, what it gives and what it stands. */
function Supply() {
  const document = useDocument();
  const kind = String(at(document, "drive.supply.kind") ?? "");
  return (
    <>
      <Choice label="Supply" value={kind} options={SUPPLIES} change={withSupply} />
      <FromBin label="Take a battery or panel of the bin" kinds={["battery", "panel"]} />
      <SupplyFields />
      <Ratings kind={kind} path="drive.supply" title="What the supply stands" />
    </>
  );
}

/** The supply by itself. */
export function SupplyPanel() {
  return (
    <>
      <Heading as="h2" size="sm" mb="2">
        Supply
      </Heading>
      <Box display="grid" gap="2">
        <Supply />
      </Box>
      <BatteryCaution />
    </>
  );
}

function BatteryCaution() {
  return (
    <Box fontSize="xs" color="ink.second" mt="3">
      Charge lithium packs watched and in a fire-safe place; put a fuse close to the battery. The makers'
      instructions come first.
    </Box>
  );
}

/** Branches join on the first shaft of the trunk, each with its own source and stages. */
function BranchActions({ number, several }: { number: number; several: boolean }) {
  const change = useChange();
  const { readOnly } = useEdit();
  if (readOnly) return null;
  return (
    <Flex mt="3" gap="1" wrap="wrap">
      <Button size="xs" onClick={() => change(addBranch)}>
        Add a branch like this
      </Button>
      {several && (
        <Button size="xs" onClick={() => change((old) => removeBranch(old, number))}>
          Remove this branch
        </Button>
      )}
    </Flex>
  );
}

function HardStart({ branch }: { branch: number }) {
  const { live } = useFigures();
  const units = useUnits();
  const current = live.flows.find((f) => f.moment === "hard start")?.currents[branch];
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

function MotorFields({ branch }: { branch: number }) {
  const source = `drive.branches[${branch}].source`;
  const document = useDocument();
  const { set, readOnly } = useEdit();
  const byConstants = at(document, `${source}.constants`) !== undefined;
  const switchGiven = () => {
    const changed = { ...(at(document, source) as Record<string, unknown>) };
    delete changed[byConstants ? "constants" : "bench_points"];
    set(source, { ...changed, ...(byConstants ? { bench_points: BENCH_POINTS } : { constants: CONSTANTS }) });
  };
  const given = `${source}.${byConstants ? "constants" : "bench_points"}`;
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
      <TorqueCurve branch={branch} />
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

function EngineFields({ branch }: { branch: number }) {
  return (
    <>
      <TorqueCurve branch={branch} />
      <Field
        path={`drive.branches[${branch}].clutch.engagement_speed`}
        label="Clutch engages fully at"
        dimension="angular speed"
      />
    </>
  );
}
