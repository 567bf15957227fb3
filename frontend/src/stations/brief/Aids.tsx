import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useEffect, useId, useState } from "react";
import { type Aid, api, type Fault, type Finding, type Refusal } from "../../api/client";
import { at, type DesignDocument } from "../../design/document";
import { FaultText } from "../../fields/FaultText";
import { completed, show, useUnits } from "../../fields/units";
import { Formula, Sign } from "../../working/formula";
import { useDocument, useEdit } from "../context";

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

interface Answer {
  finding: Finding | null;
  faults: Fault[];
}

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
        {aid.asked.map((asked) =>
          asked.flag ? (
            <label key={asked.symbol} style={{ alignSelf: "end" }}>
              <input
                type="checkbox"
                checked={given[asked.symbol] === true}
                onChange={(event) => change(asked.symbol, event.target.checked)}
              />{" "}
              {asked.words}
            </label>
          ) : (
            <Measured
              key={asked.symbol}
              asked={asked}
              fault={given[asked.symbol] ? faults.find((f) => f.path === asked.symbol) : undefined}
              onChange={(text) => change(asked.symbol, completed(units, asked.dimension, text))}
            />
          ),
        )}
      </Flex>
      {finding && <Found aid={aid} finding={finding} />}
    </Box>
  );
}

function Measured({
  asked,
  fault,
  onChange,
}: {
  asked: Aid["asked"][number];
  fault: Fault | undefined;
  onChange: (text: string) => void;
}) {
  const id = useId();
  return (
    <Box>
      <Box as="label" {...{ htmlFor: id }} display="block" fontSize="sm" color="ink.second">
        {asked.words}
      </Box>
      <Input
        id={id}
        w="150px"
        placeholder={asked.example}
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
          {places(document, aid).map(([path, name]) => (
            <Button key={path} size="xs" onClick={() => set(path, keep)}>
              Use as {name}
            </Button>
          ))}
        </Flex>
      )}
    </Box>
  );
}

const PLACES: Record<string, { kinds: string[]; fields: [string, string][] }> = {
  v_belt: {
    kinds: ["v_belt"],
    fields: [
      ["driver_pitch_diameter", "driver of the V-belt"],
      ["driven_pitch_diameter", "driven of the V-belt"],
    ],
  },
  box: { kinds: ["gearbox", "worm"], fields: [["ratio", "ratio of the box"]] },
};

/** Where in the design the value belongs: one place, or one in each stage of a kind. */
function places(document: DesignDocument, aid: Aid): [string, string][] {
  const wanted = PLACES[aid.path];
  if (!wanted) return aid.path ? [[aid.path, aid.words]] : [];
  const lists = ["drive.stages", ...document.drive.branches.map((_, b) => `drive.branches[${b}].stages`)];
  return lists.flatMap((list) =>
    ((at(document, list) as { kind: string }[] | undefined) ?? []).flatMap((stage, i): [string, string][] =>
      wanted.kinds.includes(stage.kind)
        ? wanted.fields.map(([field, words]): [string, string] => [`${list}[${i}].${field}`, words])
        : [],
    ),
  );
}

export function useFinding(aid: Aid, given: Record<string, string | boolean>): Answer {
  const [answer, setAnswer] = useState<Answer>({ finding: null, faults: [] });
  useEffect(() => {
    if (!aid.asked.every((asked) => asked.flag || given[asked.symbol])) {
      setAnswer({ finding: null, faults: [] });
      return;
    }
    const stop = new AbortController();
    void (async () => {
      try {
        const { data, error } = await api.POST("/api/aids/", {
          body: { aid: aid.name, given },
          signal: stop.signal,
        });
        const faults = (error as Refusal | undefined)?.faults ?? [];
        setAnswer({ finding: data ?? null, faults });
      } catch {
        // Typed on meanwhile, or no connection: what was found before stays out.
        setAnswer({ finding: null, faults: [] });
      }
    })();
    return () => stop.abort();
  }, [aid, given]);
  return answer;
}
