import { Box, Button, Flex } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { type LogFile, refusalText } from "../../../api/client";
import { useWidth } from "../../../drawing/useWidth";
import { FileInput } from "../../../ui/fields/FileInput";
import { digits, useUnits } from "../../../ui/fields/units";
import { ProgressBar } from "../../../ui/ProgressBar";
import { counted } from "../../../words/counted";
import { Axes } from "../Axes";
import { FRAME, line, scales, span } from "../plot";
import type { RunDocument } from "../run";
import { Shown } from "../Shown";
import type { Runs } from "../useRuns";
import { type LogLayout, useLogFile } from "./useLogFile";

type Found = NonNullable<LogFile["found"]>;

/** A logger's table: what its columns hold is guessed and confirmed, then it is sent, read, and its runs are found. */
export function LogFilePanel({ runs }: { runs: Runs }) {
  const held = useLogFile();
  const { file } = held;
  return (
    <Box as="section" aria-label="Logger file" data-log-file>
      <Flex gap="3" align="center" wrap="wrap">
        <label className="file">
          Open a logger's table
          <FileInput accept=".csv,.tsv,.txt,.log,.xlsx" onPick={(file) => void held.begin(file)} />
        </label>
        <Box fontSize="13.5px" color="ink.second">
          CSV with any separator, or XLSX; up to 2,000,000 rows.
        </Box>
      </Flex>
      {held.trouble && (
        <Box role="alert" color="brick">
          {held.trouble}
        </Box>
      )}
      {file?.state === "coming" && held.sent === null && (
        <Columns key={file.id} file={file} onRead={(layout) => void held.read(layout)} />
      )}
      {(held.sent !== null || file?.state === "waiting" || file?.state === "reading") && (
        <Flex gap="3" align="center" mt="2" role="status" data-log-progress>
          <ProgressBar label="How far it is" share={held.sent} width="240px" />
          {held.sent !== null
            ? `sending, ${Math.round(100 * held.sent)} %`
            : `reading, ${(file?.rows ?? 0).toLocaleString("en")} rows so far`}
          <Button size="xs" onClick={() => void held.cancel()}>
            Cancel
          </Button>
        </Flex>
      )}
      {file?.state === "failed" && (
        <Box role="alert" color="brick">
          {file.trouble}
        </Box>
      )}
      {file?.found && <WhatWasFound found={file.found} runs={runs} onLogged={held.drop} />}
    </Box>
  );
}

/** What each column holds, and its unit; the guess to be confirmed. */
function Columns({ file, onRead }: { file: LogFile; onRead: (layout: LogLayout) => void }) {
  const [layout, setLayout] = useState(file.layout);
  const put = (place: number, change: Partial<LogLayout["columns"][number]>) =>
    setLayout((old) => ({
      ...old,
      columns: old.columns.map((column, k) => (k === place ? { ...column, ...change } : column)),
    }));
  return (
    <Box mt="2" data-columns>
      <Box fontWeight="600">What do its columns hold?</Box>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Columns">
        <table className="plan">
          <thead>
            <tr>
              <th scope="col">column</th>
              <th scope="col">holds</th>
              <th scope="col">in</th>
            </tr>
          </thead>
          <tbody>
            {layout.columns.map((column, place) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a column is its place in the table
              <tr key={place}>
                <td>{column.name || `column ${place + 1}`}</td>
                <td>
                  <select
                    className="plain small"
                    aria-label={`What column ${place + 1} holds`}
                    value={column.meaning}
                    onChange={(event) =>
                      put(place, {
                        meaning: event.target.value,
                        unit: file.meanings[event.target.value] ?? "",
                      })
                    }
                  >
                    <option value="">nothing of interest</option>
                    {Object.keys(file.meanings).map((meaning) => (
                      <option key={meaning} value={meaning}>
                        {meaning}
                      </option>
                    ))}
                  </select>
                </td>
                <td>
                  {column.meaning && (
                    <input
                      className="unit"
                      aria-label={`Unit of column ${place + 1}`}
                      value={column.unit}
                      onChange={(event) => put(place, { unit: event.target.value })}
                    />
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Box>
      <Button variant="solid" minH="44px" px="5" mt="2" onClick={() => onRead(layout)} data-read-file>
        Read it
      </Button>
    </Box>
  );
}

/** The runs with their curves over the predicted one, the faults, and the way into the log. */
function WhatWasFound({ found, runs, onLogged }: { found: Found; runs: Runs; onLogged: () => void }) {
  const units = useUnits();
  const [trouble, setTrouble] = useState("");
  const titles = new Map(units.runs.map((kind) => [kind.kind, kind.title]));
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  useEffect(() => setTicked(new Set(found.runs.map((_, k) => k))), [found]);
  const logAll = async () => {
    setTrouble("");
    for (const [k, run] of found.runs.entries()) {
      if (!ticked.has(k)) continue;
      const { refused } = await runs.log(run as RunDocument, null);
      if (refused) return setTrouble(refusalText(refused));
    }
    onLogged();
  };
  return (
    <Box mt="2" data-file-found>
      <Box fontWeight="600">
        {found.count === 0
          ? "No run in it: it never stood still and then moved."
          : `${counted(found.count, "run")} in ${counted(found.rows, "row")}`}
      </Box>
      {found.faulty > 0 && (
        <details>
          <summary>{`${counted(found.faulty, "row")} cannot be read`}</summary>
          <Box fontSize="13px" color="brick">
            {found.faults.map((fault) => (
              <Box key={fault.path}>{`${fault.path}: ${fault.problem}; ${fault.remedy}.`}</Box>
            ))}
          </Box>
        </details>
      )}
      {found.journeys.length > 0 && <Curves found={found} />}
      {found.journeys.flatMap((journey, k) =>
        (journey.remarks ?? []).map((remark) => (
          <Box key={`${journey.begun} ${remark}`} fontSize="13px" color="ochre" data-remark>
            {`Run ${k + 1}: ${remark}.`}
          </Box>
        )),
      )}
      <Box as="ul" listStyleType="none" p="0" mt="1">
        {found.runs.map((run, k) => {
          const document = run as RunDocument;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a run is its place in the answer
            <li key={k}>
              <label>
                <input
                  type="checkbox"
                  checked={ticked.has(k)}
                  onChange={(event) => {
                    const next = new Set(ticked);
                    if (event.target.checked) next.add(k);
                    else next.delete(k);
                    setTicked(next);
                  }}
                />{" "}
                <b>{titles.get(document.kind) ?? document.kind}</b>{" "}
                <Box as="span" fontFamily="mono" fontSize="13px">
                  {document.readings.slice(0, 8).map(String).join("   ")}
                  {document.readings.length > 8 && ` and ${document.readings.length - 8} more`}
                </Box>
              </label>
            </li>
          );
        })}
      </Box>
      {found.runs.length > 0 && (
        <Button
          variant="solid"
          minH="44px"
          px="5"
          mt="2"
          disabled={ticked.size === 0}
          onClick={() => void logAll()}
          data-log-file-runs
        >
          Log what is ticked
        </Button>
      )}
      {trouble && (
        <Box role="alert" color="brick">
          {trouble}
        </Box>
      )}
    </Box>
  );
}

const HEIGHT = 220;
const DRAWN = 12;

/** Speed over time of each run, thin, over the predicted one. */
function Curves({ found }: { found: Found }) {
  const units = useUnits();
  const [ref, width] = useWidth<HTMLDivElement>(420);
  const unit = units.entry("speed")[units.system];
  const shown = (si: number | null | undefined) => (si == null ? null : si / unit.factor);
  const drawn = found.journeys.slice(0, DRAWN);
  const predicted = found.predicted.map((p) => [p[0] ?? 0, shown(p[1]) ?? 0] as const);
  const longest = Math.max(...drawn.map((one) => one.lasted));
  const speeds = [
    ...drawn.flatMap((one) => one.curve.map((p) => shown(p[1]) ?? 0)),
    ...predicted.map((p) => p[1]),
  ];
  const frame = { ...FRAME, width, height: HEIGHT };
  const at = scales(frame, [0, longest], span([0, ...speeds], 0.02));
  const inside = predicted.filter((p) => p[0] <= longest);
  return (
    <Shown
      title={`Speed, ${unit.symbol}, over time`}
      table={{
        heads: ["run", "began, s", "lasted, s", "distance, m"],
        rows: found.journeys.map((journey, k) => [
          String(k + 1),
          digits(journey.begun),
          digits(journey.lasted),
          digits(journey.distance),
        ]),
      }}
    >
      <Box ref={ref} minW="0">
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label="Speed over time of each run, over the predicted one"
        >
          <Axes frame={frame} at={at} unitX="s" format={digits} />
          {drawn.map((one) => (
            <path
              key={one.begun}
              d={line(
                one.curve.map((p) => p[0] ?? 0),
                one.curve.map((p) => shown(p[1])),
                at,
              )}
              fill="none"
              stroke="var(--chakra-colors-ink)"
              strokeWidth={1}
              opacity={0.6}
              data-journey
            />
          ))}
          <path
            d={line(
              inside.map((p) => p[0]),
              inside.map((p) => p[1]),
              at,
            )}
            fill="none"
            stroke="var(--chakra-colors-spruce)"
            strokeWidth={2.4}
          />
        </svg>
      </Box>
      <Box fontSize="12.5px" color="ink.second">
        Thin: as logged; thick: as designed.
      </Box>
    </Shown>
  );
}
