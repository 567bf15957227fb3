import { Box, Flex } from "@chakra-ui/react";
import type { Fault, Start, Starts } from "../../api/client";
import { useParts } from "../../document/bin/useBin";
import { usePartName } from "../../document/bin/usePartName";
import { ChoiceField } from "../../ui/fields/ChoiceField";
import { type Answers, faultOf, type Put } from "./answers";
import { Asked, Question } from "./Question";

interface Props {
  workshop: string;
  start: Start;
  starts: Starts;
  answers: Answers;
  put: Put;
  faults: Fault[];
}

const TYPICAL: [string, string] = ["", "a typical one"];
const LABEL: [string, string] = ["label", "I only know the label"];

/** What drives it, and what feeds that: a part of the bin, what its label says, or a typical one. */
export function Drives(props: Props) {
  const { start } = props;
  return (
    <>
      <Question title={start.source === "engine" ? "Which engine drives it?" : "Which motor drives it?"}>
        <Flex gap="3" wrap="wrap">
          <SourceChoice {...props} />
          {start.source === "engine" ? <EngineLabel {...props} /> : <MotorLabel {...props} />}
        </Flex>
      </Question>
      {start.supply === "battery" && (
        <Question title="Which battery?">
          <Flex gap="3" wrap="wrap">
            <SupplyChoice {...props} />
            <PackLabel {...props} />
          </Flex>
        </Question>
      )}
    </>
  );
}

/** Parts of the bin of a kind, to choose from. */
function useChoices(workshop: string, kind: string): [string, string][] {
  const name = usePartName();
  const parts = useParts(workshop).data ?? [];
  return parts
    .filter((part) => part.document.kind === kind)
    .map((part): [string, string] => [part.document.id, `${name(part.document)}, of the bin`]);
}

function SourceChoice({ workshop, start, starts, answers, put }: Props) {
  const parts = useChoices(workshop, start.source);
  const engine = start.source === "engine";
  const label = engine ? answers.engine : answers.motor;
  const fresh = engine
    ? { engine: { power: "", speed: "" } }
    : { motor: { size: start.size || starts.sizes[0] || "", kv: "" } };
  return (
    <ChoiceField
      label={engine ? "Engine" : "Motor"}
      value={answers.source ?? (label ? "label" : "")}
      options={[TYPICAL, LABEL, ...parts]}
      readOnly={false}
      onChange={(chosen) => {
        const none = { source: undefined, motor: undefined, engine: undefined };
        put({ ...none, ...(chosen === "label" ? fresh : { source: chosen || undefined }) });
      }}
    />
  );
}

function MotorLabel({ starts, answers, put, faults }: Props) {
  const { motor } = answers;
  if (!motor) return null;
  return (
    <>
      <ChoiceField
        label="Its size"
        value={motor.size}
        options={starts.sizes.map((size) => [size, size])}
        readOnly={false}
        onChange={(size) => put({ motor: { ...motor, size } })}
      />
      <Box>
        <Asked
          label="Speed constant on its label"
          dimension="speed constant"
          value={motor.kv}
          fault={faultOf(faults, "answers.motor.kv")}
          onChange={(kv) => put({ motor: { ...motor, kv: kv ?? "" } })}
        />
        <Box fontSize="xs" color="ink.second">
          A label with a speed and a voltage: speed by voltage.
        </Box>
      </Box>
    </>
  );
}

function EngineLabel({ answers, put, faults }: Props) {
  const { engine } = answers;
  if (!engine) return null;
  return (
    <>
      <Asked
        label="Rated power"
        dimension="power"
        value={engine.power}
        fault={faultOf(faults, "answers.engine.power")}
        onChange={(power) => put({ engine: { ...engine, power: power ?? "" } })}
      />
      <Asked
        label="At what speed"
        dimension="angular speed"
        value={engine.speed}
        fault={faultOf(faults, "answers.engine.speed")}
        onChange={(speed) => put({ engine: { ...engine, speed: speed ?? "" } })}
      />
    </>
  );
}

function SupplyChoice({ workshop, start, starts, answers, put }: Props) {
  const parts = useChoices(workshop, "battery");
  const fresh = { cells: start.cells || starts.cells[0] || "", voltage: "", capacity: "" };
  return (
    <ChoiceField
      label="Battery"
      value={answers.supply ?? (answers.pack ? "label" : "")}
      options={[TYPICAL, LABEL, ...parts]}
      readOnly={false}
      onChange={(chosen) =>
        put(
          chosen === "label"
            ? { supply: undefined, pack: fresh }
            : { supply: chosen || undefined, pack: undefined },
        )
      }
    />
  );
}

function PackLabel({ starts, answers, put, faults }: Props) {
  const { pack } = answers;
  if (!pack) return null;
  return (
    <>
      <ChoiceField
        label="Its cells"
        value={pack.cells}
        options={starts.cells.map((kind) => [kind, kind])}
        readOnly={false}
        onChange={(cells) => put({ pack: { ...pack, cells } })}
      />
      <Asked
        label="Voltage, full"
        dimension="voltage"
        value={pack.voltage}
        fault={faultOf(faults, "answers.pack.voltage")}
        onChange={(voltage) => put({ pack: { ...pack, voltage: voltage ?? "" } })}
      />
      <Asked
        label="Capacity"
        dimension="charge"
        value={pack.capacity}
        fault={faultOf(faults, "answers.pack.capacity")}
        onChange={(capacity) => put({ pack: { ...pack, capacity: capacity ?? "" } })}
      />
    </>
  );
}
