import { Box, Button, CloseButton, Drawer, Flex, Portal } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Gauge, type LoadRow, type Working } from "../../api/client";
import { show, type Units, useUnits } from "../../ui/fields/units";
import { label } from "../../words/measures";
import type { Asked } from "../context";
import type { DesignDocument } from "../document";
import { Formula, plainFormula, Sign } from "./formula";
import { RunTable } from "./RunTable";

export const askedOf = (gauge: Gauge): Asked => ({ measure: gauge.measure, at: gauge.at });

interface Props {
  vehicle: string;
  asked: Asked;
  document: DesignDocument;
  onAsk: (asked: Asked) => void;
  onClose: () => void;
}

/** Measures that no target can name: texts, and one number a branch. */
const OTHERS = [
  "overall_ratio",
  "limited_by",
  "pushing_limit",
  "launch_motor_current",
  "pushing_motor_current",
  "cruise_motor_current",
  "motor_speed_at_top",
];

const BY_BRANCH = new Set(OTHERS.filter((name) => !["limited_by", "pushing_limit"].includes(name)));

const ORIGINS: Record<string, string> = {
  given: "given",
  measured: "measured",
  part: "from the part",
  assumed: "assumed",
  default: "not given: the usual",
  constant: "constant",
  solved: "found so that the lines below hold",
};

/** Where a number comes from: made by the core, set in type here. */
export default function WorkingDrawer({ vehicle, asked, document, onAsk, onClose }: Props) {
  const units = useUnits();
  const [branch, setBranch] = useState(0);
  const branches = document.drive.branches.length;
  const working = useQuery({
    queryKey: ["working", asked, branch, document],
    queryFn: () =>
      asked.row
        ? ofRow(document, asked.row)
        : asked.measure === "price"
          ? ofPrice(vehicle, document)
          : answer(
              api.POST("/api/working/", {
                body: {
                  document: document as unknown as Record<string, unknown>,
                  measure: asked.measure,
                  branch: Math.min(branch, branches - 1),
                  at: asked.at,
                },
              }),
            ),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
  return (
    <Drawer.Root open size="lg" onOpenChange={({ open }) => !open && onClose()}>
      <Portal>
        <Drawer.Positioner>
          <Drawer.Content bg="panel" data-working={asked.measure}>
            <Drawer.Header borderBottomWidth="1px" borderColor="line" py="3">
              <Drawer.Title fontSize="lg">{titleOf(asked, units)}</Drawer.Title>
              {branches > 1 && BY_BRANCH.has(asked.measure) && (
                <select
                  className="plain small"
                  aria-label="Branch"
                  value={branch}
                  onChange={(event) => setBranch(Number(event.target.value))}
                >
                  {document.drive.branches.map((_, b) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: a branch is its place in the drive
                    <option key={b} value={b}>
                      branch {b + 1}
                    </option>
                  ))}
                </select>
              )}
              <Other onAsk={onAsk} />
            </Drawer.Header>
            <Drawer.Body py="3">
              {working.data ? (
                <Sheet working={working.data} title={titleOf(asked, units)} />
              ) : working.isError ? (
                <Box role="alert">{working.error.message}</Box>
              ) : (
                <Box role="status">Working it out</Box>
              )}
            </Drawer.Body>
            <Drawer.CloseTrigger asChild>
              <CloseButton size="sm" aria-label="Close the working" />
            </Drawer.CloseTrigger>
          </Drawer.Content>
        </Drawer.Positioner>
      </Portal>
    </Drawer.Root>
  );
}

const ofRow = (document: DesignDocument, { check, path, member, moment }: LoadRow) =>
  answer(
    api.POST("/api/loads/working/", {
      body: { document: document as unknown as Record<string, unknown>, check, path, member, moment },
    }),
  );

/** The price depends on the vehicle's bin, and on what was paid. */
const ofPrice = (vehicle: string, document: DesignDocument) =>
  answer(
    api.POST("/api/vehicles/{vehicle}/parts-list/working/", {
      params: { path: { vehicle } },
      body: { document: document as unknown as Record<string, unknown> },
    }),
  );

/** The measure with the distance, speed or time it refers to. */
function titleOf(asked: Asked, units: Units): string {
  if (asked.row) return `${asked.row.part}: ${asked.row.title}`;
  const run = units.measures.find((row) => row.name === asked.measure)?.run ?? "";
  const at = asked.at === null ? { number: "the", unit: run } : show(units, run, asked.at);
  return label(asked.measure, run && `${Number(at.number) || at.number} ${at.unit}`);
}

/** Any other number of the design; what is not in the readout is found here. */
function Other({ onAsk }: { onAsk: (asked: Asked) => void }) {
  const units = useUnits();
  return (
    <select
      className="plain small"
      aria-label="Another number"
      value=""
      style={{ marginLeft: "auto", marginRight: "32px" }}
      onChange={(event) => onAsk({ measure: event.target.value, at: null })}
    >
      <option value="">Another number</option>
      {[...OTHERS, ...units.measures.filter((m) => !m.loads).map((m) => m.name)].map((name) => (
        <option key={name} value={name}>
          {label(name)}
        </option>
      ))}
    </select>
  );
}

function text(units: Units, dimension: string, si: number | null): string {
  if (dimension === "ratio" && si !== null && Number.isInteger(si)) return String(si);
  return Object.values(show(units, dimension, si))
    .join(" ")
    .trim();
}

function Sheet({ working, title }: { working: Working; title: string }) {
  const units = useUnits();
  const copy = () => void navigator.clipboard?.writeText(asText(working, title, units));
  return (
    <Box fontSize="sm">
      <Flex align="baseline" gap="4" mb="1">
        <Box fontFamily="mono" fontWeight="700" fontSize="32px" lineHeight="1.1" data-value>
          {working.text || text(units, working.dimension, working.value)}
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

function asText(working: Working, title: string, units: Units): string {
  const value = working.text || text(units, working.dimension, working.value);
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
