import { Box, Button, Flex } from "@chakra-ui/react";
import type { Working } from "../../api/client";
import { copyText } from "../../ui/copying";
import { show, type Units, useUnits } from "../../ui/fields/units";
import { Formula, plainFormula, Sign } from "./formula";
import { RunTable } from "./RunTable";

const ORIGINS: Record<string, string> = {
  given: "given",
  measured: "measured",
  part: "from the part",
  assumed: "assumed",
  default: "not given: the usual",
  constant: "constant",
  solved: "found so that the lines below hold",
};

function text(units: Units, dimension: string, si: number | null): string {
  if (dimension === "ratio" && si !== null && Number.isInteger(si)) return String(si);
  return Object.values(show(units, dimension, si))
    .join(" ")
    .trim();
}

interface Props {
  working: Working;
  title: string;
  /** In the place of the number, where it is told in other words. */
  told?: string;
}

/** The lines behind a number: what was put in, what was worked out, and where the formula is from. */
export function WorkingSheet({ working, title, told }: Props) {
  const units = useUnits();
  const copy = () => void copyText(asText(working, title, units, told));
  return (
    <Box fontSize="sm">
      <Flex align="baseline" gap="4" mb="1">
        <Box
          fontFamily={told ? "body" : "mono"}
          fontWeight="700"
          fontSize={told ? "24px" : "32px"}
          lineHeight="1.15"
          data-value
        >
          {told ?? (working.text || text(units, working.dimension, working.value))}
        </Box>
        <Button size="xs" onClick={copy}>
          Copy the working
        </Button>
      </Flex>
      <Box fontSize="md" mb="3">
        {working.formula}
      </Box>
      {working.plain !== null && working.value !== null && <Between working={working} />}
      {working.steps.length > 0 ? (
        <>
          {working.inputs.length > 0 && <Title>Numbers put in</Title>}
          <Inputs working={working} />
          {working.table.length > 0 && (
            <>
              <Title>{title.includes(":") ? "The day in rows" : "The run in rows"}</Title>
              <RunTable columns={working.table} />
            </>
          )}
          <Title>Worked out</Title>
          <Steps working={working} />
        </>
      ) : (
        <Box color="ink.second">
          There is no more behind it: it is as given, or this design has no such number.
        </Box>
      )}
      <Box color="ink.second" mt="3">
        {working.source}
      </Box>
    </Box>
  );
}

function Title({ children }: { children: string }) {
  return (
    <Box as="h3" fontWeight="600" mt="4" mb="1">
      {children}
    </Box>
  );
}

/** The plain estimate, and one line for each thing that lies between it and the full value. */
function Between({ working }: { working: Working }) {
  const units = useUnits();
  const signed = (si: number | null) => {
    if (si === null) return "";
    const { factor } = units.entry(working.dimension)[units.system];
    const shown = show(
      units,
      working.dimension,
      Math.abs(si) + units.entry(working.dimension)[units.system].offset,
    );
    return `${si * factor < 0 ? "−" : "+"}${shown.number}`;
  };
  return (
    <table className="working" data-between>
      <tbody>
        <tr>
          <th scope="row">Plain estimate: no losses, no sag, grip without end</th>
          <td>{text(units, working.dimension, working.plain)}</td>
          <td />
        </tr>
        {working.parts.map((part) => (
          <tr key={part.words}>
            <th scope="row">{part.words}</th>
            <td>{text(units, working.dimension, part.value)}</td>
            <td>{signed(part.change)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Inputs({ working }: { working: Working }) {
  const units = useUnits();
  return (
    <table className="working">
      <tbody>
        {working.inputs.map((input) => (
          <tr key={input.symbol}>
            <td>
              <Sign name={input.symbol} />
            </td>
            <td>{text(units, input.dimension, input.value)}</td>
            <th scope="row">
              {input.words}
              <Box as="span" color="ink.second">
                {" "}
                – {ORIGINS[input.origin]}
                {input.note && `: ${input.note}`}
              </Box>
            </th>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Steps({ working }: { working: Working }) {
  const units = useUnits();
  return (
    <table className="working">
      <tbody>
        {working.steps.map((step, i) => (
          <tr
            key={`${step.symbol} ${step.check}`}
            className={i === working.steps.length - 1 ? "last" : undefined}
          >
            <td>
              <Sign name={step.symbol} />
            </td>
            <td>{text(units, step.dimension, step.value)}</td>
            <th scope="row">
              = <Formula text={step.expression} />
              <Box as="span" color="ink.second">
                {" "}
                – {step.words}
              </Box>
            </th>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function asText(working: Working, title: string, units: Units, told?: string): string {
  const value = told ?? (working.text || text(units, working.dimension, working.value));
  return [
    `${title}: ${value}`,
    working.formula,
    ...(working.plain === null ? [] : [`Plain estimate: ${text(units, working.dimension, working.plain)}`]),
    ...working.parts.map((part) => `  ${part.words}: ${text(units, working.dimension, part.value)}`),
    ...working.inputs.map(
      (i) =>
        `${i.symbol} = ${text(units, i.dimension, i.value)}  (${i.words}, ${ORIGINS[i.origin]}${i.note && `: ${i.note}`})`,
    ),
    ...working.steps.map(
      (s) =>
        `${s.symbol} = ${plainFormula(s.expression)} = ${text(units, s.dimension, s.value)}  (${s.words})`,
    ),
    working.source,
  ].join("\n");
}
