import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useId, useState } from "react";
import type { Aid, Fault, Finding } from "../../api/client";
import { useDocument, useEdit } from "../../document/context";
import { at, type DesignDocument, type Stage } from "../../document/document";
import { Formula, Sign } from "../../document/working/formula";
import { FaultText } from "../../ui/fields/FaultText";
import { completed, show, useUnits } from "../../ui/fields/units";
import { PractiseThis } from "../../ui/PractiseThis";
import type { Kinds, StageKind } from "../../words/kinds";
import { useFinding } from "../shared/useFinding";

/** Ways to find a value with what is at hand; each shows its arithmetic and keeps what was measured with the value. */
export function Aids() {
  const units = useUnits();
  const [chosen, setChosen] = useState("");
  const aid = units.aids.find((a) => a.name === chosen);
  return (
    <Box mt="4" data-aids>
      <select
        className="plain"
        aria-label="Measure a value"
        value={chosen}
        onChange={(event) => setChosen(event.target.value)}
      >
        <option value="">Measure a value</option>
        {units.aids.map((a) => (
          <option key={a.name} value={a.name}>
            {a.title}: {a.words}
          </option>
        ))}
      </select>
      {aid && <AidForm key={aid.name} aid={aid} />}
    </Box>
  );
}

/** What an aid measures is practised elsewhere. */
const IDEAS: Record<string, string> = {
  counted_turns: "counted turns",
  rim_and_depth: "running diameter",
  swapped_wheel: "speed",
  scale_speed: "speed",
};

function AidForm({ aid }: { aid: Aid }) {
  const units = useUnits();
  const [given, setGiven] = useState<Record<string, string | boolean>>({});
  const { finding, faults } = useFinding(aid, given);
  const change = (symbol: string, value: string | boolean) =>
    setGiven((old) => ({ ...old, [symbol]: value }));
  return (
    <Box mt="2" p="3" borderWidth="1px" borderColor="line" borderRadius="3px" data-aid={aid.name}>
      <Box fontSize="sm" color="ink.second" mb="2">
        {aid.hint}
      </Box>
      <Flex gap="3" wrap="wrap" align="flex-start">
        {aid.inputs.map((input) =>
          input.flag ? (
            <label key={input.symbol} style={{ alignSelf: "end" }}>
              <input
                type="checkbox"
                checked={given[input.symbol] === true}
                onChange={(event) => change(input.symbol, event.target.checked)}
              />{" "}
              {input.words}
            </label>
          ) : (
            <Measured
              key={input.symbol}
              input={input}
              fault={given[input.symbol] ? faults.find((f) => f.path === input.symbol) : undefined}
              onChange={(text) => change(input.symbol, completed(units, input.dimension, text))}
            />
          ),
        )}
      </Flex>
      {finding && <Found aid={aid} finding={finding} />}
      {IDEAS[aid.name] && <PractiseThis idea={IDEAS[aid.name] as string} />}
    </Box>
  );
}

function Measured({
  input,
  fault,
  onChange,
}: {
  input: Aid["inputs"][number];
  fault: Fault | undefined;
  onChange: (text: string) => void;
}) {
  const id = useId();
  return (
    <Box>
      <Box as="label" {...{ htmlFor: id }} display="block" fontSize="sm" color="ink.second">
        {input.words}
      </Box>
      <Input
        id={id}
        w="150px"
        placeholder={input.example}
        aria-invalid={fault ? true : undefined}
        onChange={(event) => onChange(event.target.value)}
      />
      {fault && <FaultText id={`${id}-fault`} fault={fault} />}
    </Box>
  );
}

/** The value found, its arithmetic, and where it may be put. */
function Found({ aid, finding }: { aid: Aid; finding: Finding }) {
  const units = useUnits();
  const document = useDocument();
  const { set, readOnly } = useEdit();
  const value = Object.values(show(units, finding.dimension, finding.value)).join(" ");
  const keep = { value: finding.typed, origin: "measured", note: finding.note };
  return (
    <Box mt="3" role="status">
      <Box as="strong" fontFamily="mono" fontSize="23px" data-found>
        {value}
      </Box>{" "}
      {aid.words}
      {finding.steps.map((step) => (
        <Box key={step.symbol} fontSize="sm" color="ink.second">
          <Sign name={step.symbol} /> = <Formula text={step.expression} />
        </Box>
      ))}
      {!readOnly && (
        <Flex gap="2" mt="2" wrap="wrap">
          {places(document, aid, units.kinds).map(([path, name]) => (
            <Button key={path} size="xs" onClick={() => set(path, keep)}>
              Use as {name}
            </Button>
          ))}
        </Flex>
      )}
    </Box>
  );
}

const OF_STAGES = "stages[].";

/** Where in the design the value belongs: one place, or one in each stage that has such a value. */
function places(document: DesignDocument, aid: Aid, kinds: Kinds): [string, string][] {
  if (!aid.path.startsWith(OF_STAGES)) return aid.path ? [[aid.path, aid.words]] : [];
  const key = aid.path.slice(OF_STAGES.length);
  const lists = ["drive.stages", ...document.drive.branches.map((_, b) => `drive.branches[${b}].stages`)];
  return lists.flatMap((list) =>
    ((at(document, list) as Stage[] | undefined) ?? []).flatMap((stage, i) =>
      placesIn(kinds.of(stage.kind), key).map(([field, words]): [string, string] => [
        `${list}[${i}].${field}`,
        words,
      ]),
    ),
  );
}

/** Keys of a stage under which it has a value, and what that is called there. */
function placesIn(kind: StageKind | undefined, key: string): [string, string][] {
  if (!kind) return [];
  if (kind.measure === key)
    return ["driver", "driven"].map((end): [string, string] => [
      `${end}_${key}`,
      `${end} of the ${kind.noun}`,
    ]);
  return kind.fields.some((field) => field.key === key) ? [[key, `${key} of the ${kind.noun}`]] : [];
}
