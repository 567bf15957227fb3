import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, type Inverse, RefusedError, troubleText, type Unknown } from "../../api/client";
import { holds, withChanges } from "../../document/changes";
import { useDocument, useEdit, usePlace } from "../../document/context";
import type { Target } from "../../document/document";
import { completed, digits, show, type Units, useUnits } from "../../ui/fields/units";
import { StandingMark } from "../../ui/StandingMark";
import { label, MEASURES } from "../../words/measures";

interface Asked {
  unknown: number;
  measure: string;
  bound: "at_least" | "at_most";
  value: string;
}

/** "For which wheel does it start on 20 %?": one unknown, solved, and the nearest real parts. */
export function TurnedRound({ unknowns }: { unknowns: Unknown[] }) {
  const units = useUnits();
  const document = useDocument();
  const { workshop } = usePlace();
  const [asked, setAsked] = useState<Asked>(() => firstQuestion(document.targets?.[0]));
  const solve = useMutation({
    mutationFn: () => {
      const unknown = unknowns[asked.unknown] as Unknown;
      const dimension = units.measures.find((m) => m.name === asked.measure)?.dimension ?? "ratio";
      return answer(
        api.POST("/api/workshops/{workshop}/inverse/", {
          params: { path: { workshop } },
          body: {
            document: document as unknown as Record<string, unknown>,
            unknown: unknown.key,
            path: unknown.path,
            target: { measure: asked.measure, [asked.bound]: completed(units, dimension, asked.value) },
          },
        }),
      );
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (unknowns[asked.unknown] && asked.value.trim()) solve.mutate();
  };
  const faults = solve.error instanceof RefusedError ? (solve.error.refusal.faults ?? []) : [];
  return (
    <Box data-turned-round>
      <form onSubmit={submit}>
        <Flex gap="2" align="center" wrap="wrap">
          For which
          <select
            className="plain"
            aria-label="What is asked for"
            value={asked.unknown}
            onChange={(event) => setAsked({ ...asked, unknown: Number(event.target.value) })}
          >
            {unknowns.map((unknown, i) => (
              <option key={`${unknown.key} ${unknown.path}`} value={i}>
                {unknown.words}
              </option>
            ))}
          </select>
          is
          <select
            className="plain"
            aria-label="Measure"
            value={asked.measure}
            onChange={(event) =>
              setAsked({
                ...asked,
                measure: event.target.value,
                bound: MEASURES[event.target.value]?.bound ?? "at_least",
              })
            }
          >
            {units.measures
              .filter((m) => m.name !== "price")
              .map((measure) => (
                <option key={measure.name} value={measure.name}>
                  {label(measure.name, `the run's ${measure.run}`).toLowerCase()}
                </option>
              ))}
          </select>
          <select
            className="plain"
            aria-label="Bound"
            value={asked.bound}
            onChange={(event) => setAsked({ ...asked, bound: event.target.value as Asked["bound"] })}
          >
            <option value="at_least">at least</option>
            <option value="at_most">at most</option>
          </select>
          <Input
            aria-label="Value"
            w="8em"
            value={asked.value}
            onChange={(event) => setAsked({ ...asked, value: event.target.value })}
          />
          <Button type="submit" variant="solid" disabled={!asked.value.trim() || unknowns.length === 0}>
            Solve
          </Button>
        </Flex>
      </form>
      {solve.isError && (
        <Box role="alert" color="brick" mt="2">
          {faults.length > 0
            ? faults.map((f) => `${f.problem}, ${f.remedy}`).join("; ")
            : troubleText(solve.error)}
        </Box>
      )}
      {solve.data && <Solved found={solve.data} />}
    </Box>
  );
}

/** The design's first target as a question; its value as typed. */
function firstQuestion(target: Target | undefined): Asked {
  const bound = target?.at_most !== undefined ? "at_most" : "at_least";
  const raw = target?.[bound] ?? target?.between?.[0];
  const value = typeof raw === "object" ? raw.value : raw;
  return {
    unknown: 0,
    measure: target?.measure ?? "top_speed",
    bound,
    value: value === undefined ? "" : String(value),
  };
}

function Solved({ found }: { found: Inverse }) {
  const units = useUnits();
  const one = (value: number) => valueText(units, found, value);
  return (
    <Box mt="4" data-solved>
      <Box fontSize="sm" color="ink.second">
        {label(found.measure)} {found.wanted}: the {found.unknown.words} may be
      </Box>
      <Box fontFamily="mono" fontSize="26px" fontWeight="700" lineHeight="1.3">
        {found.ranges.length === 0
          ? "nothing: no value does it"
          : found.ranges.map((r) => rangeText(r, one)).join(", or ")}
      </Box>
      <Flex gap="2" align="center">
        <StandingMark standing={found.present_met ? "holds" : "misses"} size={11} /> now {one(found.present)}
      </Flex>
      {found.real.length > 0 && <RealParts found={found} />}
    </Box>
  );
}

function rangeText(range: Inverse["ranges"][number], one: (value: number) => string): string {
  if (range.low === null && range.high === null) return "anything";
  if (range.low === null) return `up to ${one(range.high as number)}`;
  if (range.high === null) return `${one(range.low)} and more`;
  return range.low === range.high ? one(range.low) : `${one(range.low)} to ${one(range.high)}`;
}

function valueText(units: Units, inverse: Inverse, value: number): string {
  if (inverse.whole) return String(value);
  if (inverse.unknown.key === "reduction") return `${digits(value)} : 1`;
  return Object.values(show(units, inverse.unknown.dimension, value)).join(" ");
}

function RealParts({ found }: { found: Inverse }) {
  const units = useUnits();
  const { edit, readOnly } = useEdit();
  const document = useDocument();
  return (
    <Box mt="3" maxW="640px">
      <Box as="h2" fontWeight="600">
        Nearest real parts
      </Box>
      <table className="working">
        <tbody>
          {found.real.map((real) => (
            <tr key={`${real.words} ${real.side}`}>
              <th scope="row">
                <StandingMark standing={real.met ? "holds" : "misses"} size={11} /> {real.words}
                {real.part === "" && " (not in the bin)"}
              </th>
              <td>{valueText(units, found, real.unknown)}</td>
              <td>{Object.values(show(units, found.dimension, real.value)).join(" ")}</td>
              <td>
                <Button
                  size="xs"
                  fontFamily="body"
                  disabled={readOnly || holds(document, real.changes)}
                  onClick={() => edit((old) => withChanges(old, real.changes))}
                  aria-label={`Put on the bench: ${real.words}`}
                >
                  Put on the bench
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}
