import { Box, Button, Flex } from "@chakra-ui/react";
import { faultAt, siAt, useDocument, useEdit, useFigures } from "../../document/context";
import { at, type Target, type Typed } from "../../document/document";
import { QuantityField } from "../../ui/fields/QuantityField";
import { show, useUnits } from "../../ui/fields/units";
import { StandingMark } from "../../ui/StandingMark";
import { BOUNDS, label, MEASURES } from "../../words/measures";

type Bound = keyof typeof BOUNDS;

/** Targets written as sentences with values to fill in. */
export function Targets() {
  const document = useDocument();
  const { readOnly } = useEdit();
  const targets = document.targets ?? [];
  return (
    <>
      {targets.length === 0 && (
        <Box color="ink.second" mb="2">
          Say first what it must do: how fast, how far in what time, how hard it must push.
        </Box>
      )}
      <Box as="ul" listStyleType="none" p="0">
        {targets.map((target, number) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a target is its place in the list; it has no other name
          <Sentence key={number} target={target} number={number} />
        ))}
      </Box>
      {!readOnly && <AddTarget />}
    </>
  );
}

function Sentence({ target, number }: { target: Target; number: number }) {
  const { live } = useFigures();
  const { set, readOnly } = useEdit();
  const units = useUnits();
  const path = `targets[${number}]`;
  const words = MEASURES[target.measure] ?? {
    before: `${target.measure}:`,
    after: "",
    label: target.measure,
    bound: "at_least",
  };
  const row = units.measures.find((m) => m.name === target.measure);
  const dimension = row?.dimension ?? "ratio";
  const gauge = live.gauges.find((g) => g.target === number);
  const shown = show(units, dimension, gauge?.value);
  const [before, afterRun] = words.before.split("{run}");
  const bound = (Object.keys(BOUNDS) as Bound[]).find((key) => target[key] !== undefined) ?? words.bound;
  return (
    <Flex
      as="li"
      gap="3"
      py="2"
      borderTopWidth="1px"
      borderColor="line"
      align="baseline"
      data-target={target.measure}
    >
      <StandingMark standing={gauge?.standing ?? "unknown"} />
      <Box flex="1" lineHeight="2.3">
        {before}
        {row?.run && <RunValue target={target} number={number} run={row.run} />}
        {afterRun}{" "}
        <select
          className="plain small"
          aria-label="Kind of bound"
          disabled={readOnly}
          value={bound}
          onChange={(event) => set(path, rebound(target, bound, event.target.value as Bound))}
        >
          {Object.entries(BOUNDS).map(([key, text]) => (
            <option key={key} value={key}>
              {text}
            </option>
          ))}
        </select>{" "}
        {bound === "between" ? (
          <>
            <Value path={`${path}.between[0]`} name={`${words.label}, lower edge`} dimension={dimension} />{" "}
            and{" "}
            <Value path={`${path}.between[1]`} name={`${words.label}, upper edge`} dimension={dimension} />
          </>
        ) : (
          <Value path={`${path}.${bound}`} name={`${words.label}, ${BOUNDS[bound]}`} dimension={dimension} />
        )}{" "}
        {words.after}
      </Box>
      <Box textAlign="right" whiteSpace="nowrap" fontFamily="mono">
        <Box as="span" fontWeight="700" fontSize="lg">
          {shown.number}
        </Box>{" "}
        {shown.unit}
      </Box>
      {!readOnly && (
        <Button
          size="xs"
          variant="ghost"
          aria-label={`Take out: ${label(target.measure)}`}
          onClick={() => set(path, undefined)}
        >
          ×
        </Button>
      )}
    </Flex>
  );
}

function Value({ path, name, dimension }: { path: string; name: string; dimension: string }) {
  const document = useDocument();
  const { live, faults } = useFigures();
  const { set, readOnly } = useEdit();
  return (
    <QuantityField
      label={name}
      inline
      dimension={dimension}
      value={at(document, path)}
      si={siAt(live, path)}
      fault={faultAt(faults, path)}
      readOnly={readOnly}
      onChange={(text) => set(path, text)}
    />
  );
}

/** The target's own distance, speed or time; where it has none, the run's. */
function RunValue({ target, number, run }: { target: Target; number: number; run: string }) {
  const own = target[run as keyof Target] !== undefined;
  return (
    <Value
      path={own ? `targets[${number}].${run}` : `run.${run}`}
      name={`${label(target.measure)}: ${run}`}
      dimension={run}
    />
  );
}

function AddTarget() {
  const document = useDocument();
  const { live } = useFigures();
  const { edit } = useEdit();
  const units = useUnits();
  const add = (measure: string) => {
    const words = MEASURES[measure];
    const row = units.measures.find((m) => m.name === measure);
    if (!words || !row) return;
    const entry = units.entry(row.dimension)[units.system];
    const present = live.gauges.find((g) => g.measure === measure)?.value;
    const usual = present ? Number((((present - entry.offset) / entry.factor) as number).toPrecision(2)) : 1;
    const made: Target = { measure, [words.bound]: words.usual ?? `${usual} ${entry.typed}`.trim() };
    const run = row.run as "distance" | "speed" | "time" | "";
    if (run && document.run?.[run] === undefined)
      made[run] = { distance: "10 m", speed: "3 m/s", time: "5 s" }[run];
    edit((document) => ({ ...document, targets: [...(document.targets ?? []), made] }));
  };
  return (
    <Box mt="2">
      <select
        className="plain"
        aria-label="Add a target"
        value=""
        onChange={(event) => add(event.target.value)}
      >
        <option value="">Add a target</option>
        {units.measures
          .filter((m) => MEASURES[m.name])
          .map((m) => (
            <option key={m.name} value={m.name}>
              {(MEASURES[m.name]?.before ?? "").replace("{run}", `a ${m.run}`)} … {MEASURES[m.name]?.after}
            </option>
          ))}
      </select>
    </Box>
  );
}

/** The same target with another kind of bound; a band opens around the value that was there. */
function rebound(target: Target, from: Bound, to: Bound): Target {
  const { [from]: old, ...rest } = target;
  const single: Typed | undefined = Array.isArray(old) ? old[0] : old;
  if (to === "between")
    return { ...rest, between: [single ?? "0", Array.isArray(old) ? old[1] : (single ?? "0")] };
  return { ...rest, [to]: single };
}
