import { Box, CloseButton, Drawer, Portal } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Gauge, type LoadRow, troubleText } from "../../api/client";
import { show, type Units, useUnits } from "../../ui/fields/units";
import { label } from "../../words/measures";
import type { Asked } from "../context";
import type { DesignDocument } from "../document";
import { WorkingSheet } from "./WorkingSheet";

export const askedOf = (gauge: Gauge): Asked => ({ measure: gauge.measure, at: gauge.at });

interface Props {
  vehicle: string;
  asked: Asked;
  document: DesignDocument;
  onAsk: (question: Asked) => void;
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
                <WorkingSheet working={working.data} title={titleOf(asked, units)} />
              ) : working.isError ? (
                <Box role="alert">{troubleText(working.error)}</Box>
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
function titleOf(question: Asked, units: Units): string {
  if (question.row) return `${question.row.part}: ${question.row.title}`;
  const run = units.measures.find((row) => row.name === question.measure)?.run ?? "";
  const at = question.at === null ? { number: "the", unit: run } : show(units, run, question.at);
  return label(question.measure, run && `${Number(at.number) || at.number} ${at.unit}`);
}

/** Any other number of the design; what is not in the readout is found here. */
function Other({ onAsk }: { onAsk: (question: Asked) => void }) {
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
