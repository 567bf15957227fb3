import { Box, Button, Flex } from "@chakra-ui/react";
import type { Loads } from "../../api/client";
import { useDocument, useEdit } from "../../document/context";
import { at } from "../../document/document";
import { Field, WholeNumber } from "../../document/Field";
import { ChoiceField } from "../../ui/fields/ChoiceField";

const DOES: [string, string][] = [
  ["runs", "runs"],
  ["cruise", "at top speed"],
  ["shove", "against a wall"],
  ["turns", "turning on the spot"],
  ["rest", "rest"],
];
const FIRST: Record<string, Record<string, unknown>> = {
  runs: { do: "runs", count: 4, every: "30 s" },
  cruise: { do: "cruise", for: "30 s" },
  shove: { do: "shove", for: "4 s" },
  turns: { do: "turns", for: "4 s" },
  rest: { do: "rest", for: "10 min" },
};
const SERVICES: [string, string][] = [
  ["uniform", "uniform"],
  ["light", "light shocks"],
  ["moderate", "moderate shocks"],
  ["heavy", "heavy shocks"],
];

/** The day as a row of blocks, and how rough it is. */
export function Day({ loads }: { loads: Loads }) {
  const document = useDocument();
  const { set, readOnly } = useEdit();
  const day = (at(document, "loads.day") ?? []) as Record<string, unknown>[];
  const usual = () =>
    set(
      "loads.day",
      loads.day.map((phase) =>
        phase.do === "runs"
          ? { do: "runs", count: phase.count, every: `${phase.seconds} s` }
          : { do: phase.do, for: `${phase.seconds} s` },
      ),
    );
  return (
    <Box data-day>
      <Flex gap="3" align="end" wrap="wrap">
        <ChoiceField
          label="how the load comes"
          value={String(at(document, "loads.service") ?? "light")}
          options={SERVICES}
          readOnly={readOnly}
          onChange={(value) => set("loads.service", value)}
        />
        <Box w="96px">
          <WholeNumber path="loads.heats" label="heats" />
        </Box>
        {loads.day_assumed && (
          <Button size="sm" disabled={readOnly} onClick={usual} data-describe>
            Describe your own day
          </Button>
        )}
      </Flex>
      {loads.day_assumed ? (
        <Box mt="2" color="ink.second" fontSize="sm">
          {`Taken for usual: ${loads.day.map(phaseWords).join(", then ")}; ${loads.heats} times over.`}
        </Box>
      ) : (
        <Flex gap="2" mt="2" wrap="wrap" align="stretch">
          {day.map((phase, k) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a phase is its place in the day
            <Phase key={k} phase={phase} k={k} />
          ))}
          <Button
            size="sm"
            alignSelf="center"
            disabled={readOnly}
            onClick={() => set(`loads.day[${day.length}]`, FIRST.rest)}
          >
            Add a block
          </Button>
        </Flex>
      )}
    </Box>
  );
}

function Phase({ phase, k }: { phase: Record<string, unknown>; k: number }) {
  const { set, readOnly } = useEdit();
  const does = String(phase.do);
  return (
    <Box borderWidth="1px" borderColor="line" borderRadius="3px" p="2" w="190px" data-phase={does}>
      <ChoiceField
        label={`block ${k + 1}`}
        value={does}
        options={DOES}
        readOnly={readOnly}
        onChange={(value) => set(`loads.day[${k}]`, FIRST[value])}
      />
      {does === "runs" ? (
        <Box display="grid" gridTemplateColumns="1fr 1fr" gap="2">
          <WholeNumber path={`loads.day[${k}].count`} label="so many" />
          <Field path={`loads.day[${k}].every`} label="one every" dimension="time" />
        </Box>
      ) : (
        <Field path={`loads.day[${k}].for`} label="for" dimension="time" />
      )}
      <button
        type="button"
        className="link"
        disabled={readOnly}
        onClick={() => set(`loads.day[${k}]`, undefined)}
      >
        Take out
      </button>
    </Box>
  );
}

function phaseWords({ do: does, count, seconds }: Loads["day"][number]): string {
  const time = seconds >= 120 ? `${Math.round(seconds / 60)} min` : `${seconds} s`;
  if (does === "runs") return `${count} runs, one every ${time}`;
  const words = DOES.find(([key]) => key === does)?.[1] ?? does;
  return `${words} for ${time}`;
}
