import { Box, Button, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../../api/client";
import { useDocument, usePlace } from "../../../document/context";
import type { DesignDocument } from "../../../document/document";
import { QuantityField } from "../../../ui/fields/QuantityField";
import { useUnits } from "../../../ui/fields/units";
import { nextEntry } from "../run";
import type { PlanDocument } from "./usePlan";

interface Props {
  onDeal: (plan: PlanDocument) => Promise<void>;
  onBack: (() => void) | null;
  trouble: string;
}

const COUNTS = [1, 2, 3, 4, 5, 6, 8, 10];

/** Which gearings, what is measured, how often, and in which order. */
export function NewPlan({ onDeal, onBack, trouble }: Props) {
  const { vehicle, saved } = usePlace();
  const units = useUnits();
  const design = useDocument();
  const choices = useQuery({
    queryKey: ["plan-choices", vehicle, saved],
    queryFn: () =>
      answer(api.GET("/api/vehicles/{vehicle}/plan/choices/", { params: { path: { vehicle } } })),
  });
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [kinds, setKinds] = useState<ReadonlySet<string>>(new Set(["distance_time"]));
  const [rounds, setRounds] = useState(3);
  const [readings, setReadings] = useState(3);
  const [seldom, setSeldom] = useState(false);
  const [swap, setSwap] = useState("6 min");
  const chosen = choices.data?.filter((row) => ticked.has(row.name)) ?? [];
  const unmounted = choices.data?.filter((row) => !row.mounts) ?? [];
  const deal = () => {
    const measures = [...kinds].map((kind) => {
      const { said } = nextEntry(units.runs, kind, [], design);
      const fields = units.runs.find((run) => run.kind === kind)?.fields ?? [];
      return { kind, ...Object.fromEntries(fields.map((field) => [field.key, said[field.key]])) };
    });
    return onDeal({
      format: "ydrometer-plan",
      version: 1,
      gearings: chosen.map(({ name, design: own }) => ({ name, design: own as unknown as DesignDocument })),
      measures: measures.map((measure) =>
        Object.fromEntries(Object.entries(measure).filter(([, v]) => v !== undefined)),
      ) as PlanDocument["measures"],
      rounds,
      readings,
      seldom,
      swap,
    });
  };
  return (
    <Box as="section" aria-label="New plan" data-new-plan>
      <Box fontWeight="600">Which gearings are to be tried?</Box>
      <Flex gap="2" wrap="wrap" my="1" role="group" aria-label="Gearings">
        {choices.data
          ?.filter((row) => row.mounts)
          .map((row) => (
            <Tick
              key={row.name}
              on={ticked.has(row.name)}
              onChange={() => setTicked(toggled(ticked, row.name))}
              words={row.name}
              more={row.source}
            />
          ))}
      </Flex>
      {unmounted.length > 0 && (
        <details>
          <summary>
            {unmounted.length === 1
              ? "1 that does not go on the plate"
              : `${unmounted.length} that do not go on the plate`}
          </summary>
          <Flex gap="2" wrap="wrap" my="1">
            {unmounted.map((one) => (
              <Tick
                key={one.name}
                on={ticked.has(one.name)}
                onChange={() => setTicked(toggled(ticked, one.name))}
                words={one.name}
                more={one.source}
              />
            ))}
          </Flex>
        </details>
      )}
      <Box fontWeight="600" mt="2">
        What is measured?
      </Box>
      <Flex gap="2" wrap="wrap" my="1" role="group" aria-label="Measured">
        {units.runs
          .filter((kind) => PLANNED.has(kind.kind))
          .map((kind) => (
            <Tick
              key={kind.kind}
              on={kinds.has(kind.kind)}
              onChange={() => setKinds(toggled(kinds, kind.kind))}
              words={kind.title}
            />
          ))}
      </Flex>
      <Flex gap="3" wrap="wrap" align="end" mt="2">
        <Count label="Rounds" value={rounds} onChange={setRounds} />
        <Count label="Readings each" value={readings} onChange={setReadings} />
        <Box w="110px">
          <QuantityField
            label="Swapping takes"
            dimension="time"
            value={swap}
            onChange={(text) => setSwap(text ?? "6 min")}
          />
        </Box>
        <label>
          <Box as="span" display="block" fontSize="sm" color="ink.second">
            Order
          </Box>
          <select
            className="plain"
            value={String(seldom)}
            onChange={(event) => setSeldom(event.target.value === "true")}
          >
            <option value="false">mixed, each gearing once a round</option>
            <option value="true">swap as seldom as possible</option>
          </select>
        </label>
      </Flex>
      <Flex gap="3" mt="3" align="center">
        <Button
          variant="solid"
          minH="44px"
          px="5"
          disabled={chosen.length === 0 || kinds.size === 0}
          onClick={() => void deal()}
          data-deal
        >
          Deal the order
        </Button>
        {onBack && <Button onClick={onBack}>Back to the plan</Button>}
        {chosen.length === 1 && <Box color="ink.second">Two gearings or more can be compared.</Box>}
      </Flex>
      {trouble && (
        <Box role="alert" color="brick">
          {trouble}
        </Box>
      )}
    </Box>
  );
}

/** Kinds that tell gearings apart, or losses, and need nothing else said. */
const PLANNED = new Set(["distance_time", "top_speed", "push", "spin", "tow", "speed_at"]);

function toggled(set: ReadonlySet<string>, key: string): ReadonlySet<string> {
  const next = new Set(set);
  if (!next.delete(key)) next.add(key);
  return next;
}

interface TickProps {
  on: boolean;
  onChange: () => void;
  words: string;
  more?: string;
}

function Tick({ on, onChange, words, more }: TickProps) {
  return (
    <label className="tick" data-on={on || undefined}>
      <input type="checkbox" checked={on} onChange={onChange} />
      <span>
        <b>{words}</b>
        {more && <small>{more}</small>}
      </span>
    </label>
  );
}

function Count({ label, value, onChange }: { label: string; value: number; onChange: (n: number) => void }) {
  return (
    <label>
      <Box as="span" display="block" fontSize="sm" color="ink.second">
        {label}
      </Box>
      <select className="plain" value={value} onChange={(event) => onChange(Number(event.target.value))}>
        {COUNTS.map((n) => (
          <option key={n} value={n}>
            {n}
          </option>
        ))}
      </select>
    </label>
  );
}
