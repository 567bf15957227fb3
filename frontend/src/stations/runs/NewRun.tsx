import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import type { Fault, Learnt, LoggedRun, Refusal, RunKind } from "../../api/client";
import { useDocument, usePlace } from "../../document/context";
import { FaultText } from "../../ui/fields/FaultText";
import { isWithin } from "../../ui/fields/faults";
import { TextField } from "../../ui/fields/TextField";
import { completed, useUnits } from "../../ui/fields/units";
import { Gearing } from "./Gearing";
import { OtherSupply } from "./OtherSupply";
import { asDocument, type Entry, isTouched, nextEntry, type Step } from "./run";
import { SaidField } from "./SaidField";
import type { Runs } from "./useRuns";
import { keepEntry, storedEntry } from "./waiting";

interface Props {
  runs: Runs;
  learnt: Learnt | undefined;
  /** A run brought into the form: one that was refused, or one that is proposed. */
  brought: Entry | null;
  onTaken: () => void;
  /** A step of the plan is done. */
  onStep: (step: Step, run: string) => void;
}

/** The next run: what, the readings in large fields, and the rest as it was the last time. */
export function NewRun({ runs, learnt, brought, onTaken, onStep }: Props) {
  const { account, vehicle } = usePlace();
  const design = useDocument();
  const units = useUnits();
  const logged = runs.logged ?? [];
  const [entry, setEntry] = useState<Entry>(
    () =>
      storedEntry<Entry>(account, vehicle) ??
      nextEntry(
        units.runs,
        (logged[0]?.document.kind as string | undefined) ?? "distance_time",
        logged,
        design,
      ),
  );
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const [sending, setSending] = useState(false);
  const [several, setSeveral] = useState<LoggedRun | null>(null);
  const first = useRef<HTMLInputElement>(null);
  const touched = isTouched(entry, nextEntry(units.runs, entry.kind, logged, design, entry.tried));
  useEffect(() => keepEntry(account, vehicle, touched ? entry : null), [account, vehicle, entry, touched]);
  useEffect(() => {
    if (!brought) return;
    setEntry(brought);
    setRefusal(null);
    onTaken();
  }, [brought, onTaken]);
  const kind = units.runs.find((run) => run.kind === entry.kind) ?? (units.runs[0] as RunKind);
  const faults = refusal?.faults ?? [];
  const shown = ["readings", "supply", ...[...kind.fields, ...kind.conditions].map((field) => field.key)];
  const elsewhere = faults.filter((fault) => !shown.some((key) => isWithin(fault, key)));
  const say = (key: string, value: unknown) =>
    setEntry((old) => ({ ...old, said: { ...old.said, [key]: value } }));
  const counted = entry.readings.filter((reading) => reading.trim() !== "").length;
  const logIt = async () => {
    setSending(true);
    const { id, refused, run } = await runs.log(asDocument(entry), entry.tried, entry.step?.design);
    setSeveral(run && run.changed.length > 1 ? run : null);
    setSending(false);
    setRefusal(refused);
    if (!refused) {
      if (entry.step) onStep(entry.step, id);
      setEntry((old) => ({ ...old, readings: [""], note: "", step: null }));
    }
    first.current?.focus();
  };
  return (
    <Box as="section" aria-label="New run" data-new-run>
      <Flex gap="2" wrap="wrap" align="end">
        <Box>
          <label htmlFor="run-kind" className="visually-hidden">
            What is measured
          </label>
          <select
            id="run-kind"
            className="plain"
            value={entry.kind}
            onChange={(event) =>
              setEntry({
                ...nextEntry(units.runs, event.target.value, logged, design, entry.tried),
                readings: entry.readings,
              })
            }
          >
            {units.runs.map((run) => (
              <option key={run.kind} value={run.kind}>
                {run.title}
              </option>
            ))}
          </select>
        </Box>
        {kind.fields.map((field) => (
          <Box key={field.key} w={field.dimension ? "118px" : "auto"}>
            <SaidField
              field={field}
              value={entry.said[field.key]}
              fault={at(faults, field.key)}
              onChange={(value) => say(field.key, value)}
            />
          </Box>
        ))}
        {entry.step ? (
          <Box fontWeight="600" pb="6px" data-step>
            {`with ${entry.step.gearing}, as planned`}{" "}
            <button type="button" className="link" onClick={() => setEntry({ ...entry, step: null })}>
              not as planned
            </button>
          </Box>
        ) : (
          <Gearing
            tried={entry.tried}
            runs={logged}
            learnt={learnt}
            onChoose={(tried) => setEntry({ ...entry, tried })}
          />
        )}
      </Flex>
      <Readings
        kind={kind}
        readings={entry.readings}
        faults={faults}
        first={first}
        onChange={(readings) => setEntry((old) => ({ ...old, readings }))}
        onDone={() => counted > 0 && void logIt()}
        complete={(text) => completed(units, kind.dimension, text)}
      />
      {at(faults, "readings", true) && (
        <FaultText id="run-readings" fault={at(faults, "readings", true) as Fault} />
      )}
      <Flex gap="3" mt="2" align="center" wrap="wrap">
        <Button
          variant="solid"
          minH="44px"
          px="5"
          disabled={counted === 0 || sending}
          onClick={() => void logIt()}
          data-log-it
        >
          {counted > 1 ? `Log ${counted} readings` : "Log it"}
        </Button>
        <Remembered kind={kind} said={entry.said} />
      </Flex>
      {several && (
        <Box
          role="alertdialog"
          aria-label="Several things changed"
          bg="copper.wash"
          p="2"
          mt="2"
          data-several
        >
          {`Since the run before, ${several.changed.length} things have changed: ${several.changed.join("; ")}. Which of them made the difference cannot be told.`}
          <Flex gap="2" mt="1">
            <Button size="xs" onClick={() => setSeveral(null)}>
              That was meant
            </Button>
            <Button
              size="xs"
              onClick={() => {
                void runs.change(several, { put_away: true });
                setSeveral(null);
              }}
            >
              Put the run away
            </Button>
          </Flex>
        </Box>
      )}
      {refusal && (faults.length === 0 || elsewhere.length > 0) && (
        <Box role="alert" color="brick" mt="1">
          {elsewhere.map((one) => `${one.path}: ${one.problem}, ${one.remedy}`).join("; ") || refusal.detail}
        </Box>
      )}
      <details
        style={{ marginTop: "6px" }}
        open={[...kind.conditions.map((field) => field.key), "supply"].some((key) => at(faults, key))}
      >
        <summary>How it was made</summary>
        <Box display="grid" gap="2" mt="1" gridTemplateColumns="repeat(auto-fill, minmax(150px, 1fr))">
          {kind.conditions.map((field) => (
            <SaidField
              key={field.key}
              field={field}
              value={entry.said[field.key]}
              fault={at(faults, field.key)}
              onChange={(value) => say(field.key, value)}
            />
          ))}
          <OtherSupply
            value={entry.said.supply}
            faults={faults}
            onChange={(supply) => say("supply", supply)}
          />
          <TextField
            label="Note"
            value={entry.note}
            onChange={(note) => setEntry((old) => ({ ...old, note }))}
          />
        </Box>
      </details>
    </Box>
  );
}

const at = (faults: Fault[], key: string, whole = false) =>
  faults.find((fault) => fault.path === key || (!whole && fault.path.startsWith(`${key}.`)));

interface ReadingsProps {
  kind: RunKind;
  readings: string[];
  faults: Fault[];
  first: React.RefObject<HTMLInputElement | null>;
  onChange: (readings: string[]) => void;
  onDone: () => void;
  complete: (text: string) => string;
}

/** A row of large fields: a number and Enter, the next number and Enter; Enter in an empty one logs them. */
function Readings({ kind, readings, faults, first, onChange, onDone, complete }: ReadingsProps) {
  const units = useUnits();
  const row = useRef<HTMLDivElement>(null);
  const example = units.entry(kind.dimension).example;
  const put = (place: number, text: string) => onChange(readings.map((old, k) => (k === place ? text : old)));
  const onKeyDown = (event: KeyboardEvent, place: number) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    if (readings[place]?.trim() === "") return onDone();
    const done = readings.map((old, k) => (k === place ? complete(old) : old));
    onChange(place === readings.length - 1 ? [...done, ""] : done);
    requestAnimationFrame(() => row.current?.querySelectorAll("input")[place + 1]?.focus());
  };
  return (
    <Flex
      ref={row}
      gap="2"
      mt="2"
      wrap="wrap"
      role="group"
      aria-label={`Readings: ${kind.title}`}
      data-readings
    >
      {readings.map((reading, place) => {
        const fault = faults.find((fault) => fault.path === `readings[${place}]`);
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a reading is its place in the row
          <Box key={place}>
            <Input
              ref={place === 0 ? first : undefined}
              aria-label={`Reading ${place + 1}`}
              aria-invalid={fault ? true : undefined}
              inputMode={units.system === "metric" ? "decimal" : "text"}
              value={reading}
              placeholder={place === 0 ? example : "next"}
              w="116px"
              h="52px"
              fontSize="22px"
              onChange={(event) => put(place, event.target.value)}
              onBlur={() => reading.trim() && put(place, complete(reading))}
              onKeyDown={(event) => onKeyDown(event, place)}
            />
            {fault && <FaultText id={`reading-${place}`} fault={fault} />}
          </Box>
        );
      })}
      {readings.at(-1)?.trim() !== "" && (
        <Button h="52px" aria-label="Another reading" onClick={() => onChange([...readings, ""])}>
          +
        </Button>
      )}
    </Flex>
  );
}

/** What is taken over from the last run, in one line. */
function Remembered({ kind, said }: { kind: RunKind; said: Record<string, unknown> }) {
  const matching = kind.conditions.filter((field) => said[field.key] !== undefined && said[field.key] !== "");
  const other = said.supply ? [`on a ${(said.supply as { kind: string }).kind}`] : [];
  const voltage = said.supply_voltage === undefined;
  return (
    <Box fontSize="sm" color="ink.second">
      {[...matching.map((field) => `${field.label.toLowerCase()} ${said[field.key]}`), ...other].join(" · ")}
      {voltage && (
        <Box as="span" data-wants-voltage>
          {matching.length + other.length > 0 && " · "}voltage at rest not measured: the prediction gets 2 %
          of doubt
        </Box>
      )}
    </Box>
  );
}
