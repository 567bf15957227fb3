import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { type Learnt, type LoggedRun, refusalText } from "../../api/client";
import { TextField } from "../../ui/fields/TextField";
import { completed, useUnits } from "../../ui/fields/units";
import { StandingMark } from "../../ui/StandingMark";
import { moment } from "../../ui/when";
import { offText } from "../../words/runs";
import { documentOf, leftOut, type RunDocument, withLeftOut } from "./run";
import { SaidField } from "./SaidField";
import type { Runs } from "./useRuns";
import type { Waiting } from "./waiting";
import { type Judged, standing, valueText } from "./words";

interface Props {
  runs: Runs;
  learnt: Learnt | undefined;
  chosen: ReadonlySet<string>;
  readOnly: boolean;
  onCorrect: (waiting: Waiting) => void;
}

/** Runs, and readings of one, that are shown before more is asked for. */
const [FEW, IN_A_ROW] = [25, 8];

/** One line a run, the newest first; what the server does not have yet stands above. */
export function Log({ runs, learnt, chosen, readOnly, onCorrect }: Props) {
  const [all, setAll] = useState(false);
  const [away, setAway] = useState(false);
  const logged = (runs.logged ?? []).filter((run) => run.put_away === away);
  const { more, away: put } = runs;
  const judged = new Map(learnt?.runs.map((run) => [run.key, run]));
  const shown = all ? logged : logged.slice(0, FEW);
  return (
    <Box as="section" aria-label="Log">
      {runs.waiting.map((run) => (
        <WaitingRow key={run.id} run={run} onCorrect={() => onCorrect(run)} />
      ))}
      <Box as="ul" listStyleType="none" p="0" m="0" data-log>
        {shown.map((run) => (
          <Row
            key={run.id}
            run={run}
            judged={judged.get(run.id)}
            chosen={chosen.has(run.id)}
            {...{ runs, learnt, readOnly }}
          />
        ))}
      </Box>
      {runs.logged && logged.length === 0 && (
        <Box color="ink.second" py="2">
          {away ? "None is put away." : "The first reading makes the first line."}
        </Box>
      )}
      <Flex gap="3" data-screen-only>
        {!all && logged.length > FEW && (
          <button type="button" className="link" onClick={() => setAll(true)}>
            {`Show all ${away ? put : runs.count}`}
          </button>
        )}
        {(all || logged.length <= FEW) && more && (
          <button type="button" className="link" onClick={() => void more()}>
            Show older ones
          </button>
        )}
        {(put > 0 || away) && (
          <button type="button" className="link" onClick={() => setAway(!away)}>
            {away ? "Back to the log" : `${put} put away`}
          </button>
        )}
      </Flex>
    </Box>
  );
}

function WaitingRow({ run, onCorrect }: { run: Waiting; onCorrect: () => void }) {
  return (
    <Flex gap="3" py="2" bg="copper.wash" px="2" align="baseline" wrap="wrap" data-waiting-run>
      <Box>{run.document.readings.join("  ")}</Box>
      <Box fontSize="sm" role="status">
        {run.refused
          ? `The server refuses it: ${refusalText(run.refused)}`
          : "kept on this device until there is a connection"}
      </Box>
      {run.refused && (
        <Button size="xs" onClick={onCorrect}>
          Correct it
        </Button>
      )}
    </Flex>
  );
}

interface RowProps extends Omit<Props, "chosen" | "onCorrect"> {
  run: LoggedRun;
  judged: Judged | undefined;
  chosen: boolean;
}

function Row({ run, judged, chosen, runs, learnt, readOnly }: RowProps) {
  const [open, setOpen] = useState(false);
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (chosen) row.current?.scrollIntoView({ block: "nearest" });
  }, [chosen]);
  const units = useUnits();
  const document = documentOf(run);
  const out = new Map(leftOut(document).map((entry) => [entry.reading, entry.why]));
  const mean = valueText(units, run.dimension, run.measured);
  return (
    <Box
      as="li"
      ref={row}
      borderTopWidth="1px"
      borderColor="line"
      bg={chosen ? "spruce.wash" : undefined}
      data-run={run.id}
      data-odd={judged?.odd || undefined}
    >
      <button type="button" className="run" aria-expanded={open} onClick={() => setOpen(!open)}>
        <span className="mark">
          <StandingMark standing={standing(judged)} size={14} />
        </span>
        <span className="what">
          <b>{run.words}</b>
          <span>{judged?.design ?? learnt?.designs[String(run.design)] ?? ""}</span>
        </span>
        <span className="mean">{mean}</span>
        <span className="off">
          <b>{offText(run.off) || "–"}</b>
          <span>
            {run.predicted === null
              ? "nothing predicted"
              : `of ${valueText(units, run.dimension, run.predicted)}`}
          </span>
        </span>
        <span className="readings">
          {document.readings.slice(0, IN_A_ROW).map((reading, place) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a reading is its place in the row
            <span key={place} data-left-out={out.has(place) || undefined}>
              {String(reading)}
            </span>
          ))}
          {document.readings.length > IN_A_ROW && (
            <span>{`and ${document.readings.length - IN_A_ROW} more`}</span>
          )}
          <span className="when">{moment(run.made_at)}</span>
          {run.origin !== "typed" && <span className="when">{run.origin}</span>}
        </span>
      </button>
      <Remarks judged={judged} changed={run.changed} note={String(document.note ?? "")} />
      {open && <Details {...{ run, document, runs, readOnly }} />}
    </Box>
  );
}

interface RemarksProps {
  judged: Judged | undefined;
  changed: string[];
  note: string;
}

/** What has to be known before a run is believed. */
function Remarks({ judged, changed, note }: RemarksProps) {
  const words = [
    judged?.odd &&
      `odd: ${Math.abs(judged.z ?? 0).toFixed(1)} times its own doubt off; with four runs or more it is set aside`,
    judged?.why && `takes no part: ${judged.why}`,
    judged?.stale.length && `since then ${judged.stale.join(", ")}: not counted in curves`,
    changed.length > 1 && `changed at once: ${changed.join(", ")}`,
    note,
  ].filter(Boolean);
  if (words.length === 0) return null;
  return (
    <Box fontSize="13px" color="ink.second" pl="26px" pb="1" data-remarks>
      {words.join(" · ")}
    </Box>
  );
}

interface DetailsProps {
  run: LoggedRun;
  document: RunDocument;
  runs: Runs;
  readOnly: boolean;
}

/** A run opened: its readings corrected or left out with a reason, how it was made, and putting it away. */
function Details({ run, document, runs, readOnly }: DetailsProps) {
  const units = useUnits();
  const kind = units.runs.find((run) => run.kind === document.kind);
  const change = (next: RunDocument) => void runs.change(run, { document: next });
  const say = (key: string, value: unknown) => {
    const { [key]: _, ...rest } = document;
    change((value === undefined ? rest : { ...document, [key]: value }) as RunDocument);
  };
  return (
    <Box pl="26px" pb="2" display="grid" gap="2" data-run-details>
      {document.readings.map((reading, place) => (
        <ReadingRow
          // biome-ignore lint/suspicious/noArrayIndexKey: a reading is its place in the run
          key={place}
          place={place}
          reading={String(reading)}
          why={leftOut(document).find((entry) => entry.reading === place)?.why}
          readOnly={readOnly}
          onChange={(text) =>
            change({
              ...document,
              readings: document.readings.map((old, k) =>
                k === place ? completed(units, run.dimension, text) : old,
              ),
            })
          }
          onLeaveOut={(why) => change(withLeftOut(document, place, why))}
        />
      ))}
      <Box display="grid" gap="2" gridTemplateColumns="repeat(auto-fill, minmax(150px, 1fr))">
        {[...(kind?.fields ?? []), ...(kind?.conditions ?? [])].map((field) => (
          <SaidField
            key={field.key}
            field={field}
            value={document[field.key]}
            readOnly={readOnly}
            onChange={(value) => say(field.key, value)}
          />
        ))}
        <TextField
          label="Note"
          value={String(document.note ?? "")}
          readOnly={readOnly}
          onChange={(note) => say("note", note || undefined)}
        />
      </Box>
      <Flex gap="3" align="center" wrap="wrap">
        <label style={{ fontSize: "14px" }}>
          <input
            type="checkbox"
            checked={document.keep === true}
            disabled={readOnly}
            onChange={(event) => say("keep", event.target.checked || undefined)}
          />{" "}
          never set aside as odd
        </label>
        {!readOnly && (
          <Button size="xs" onClick={() => void runs.change(run, { put_away: !run.put_away })} data-put-away>
            {run.put_away ? "Put back into the log" : "Put away"}
          </Button>
        )}
        <Box fontSize="sm" color="ink.second">
          {[run.author, run.revision && `revision ${run.revision}`].filter(Boolean).join(", ")}
        </Box>
      </Flex>
    </Box>
  );
}

interface ReadingRowProps {
  place: number;
  reading: string;
  /** Why it is left out; undefined where it counts. */
  why: string | undefined;
  readOnly: boolean;
  onChange: (text: string) => void;
  onLeaveOut: (why: string | null) => void;
}

const REASONS = ["slipped at the start", "stopped too late", "read wrongly", "something rubbed"];

function ReadingRow({ place, reading, why, readOnly, onChange, onLeaveOut }: ReadingRowProps) {
  const [text, setText] = useState(reading);
  const commit = () => text.trim() && text !== reading && onChange(text);
  return (
    <Flex gap="2" align="center" wrap="wrap">
      <Input
        aria-label={`Reading ${place + 1}`}
        value={text}
        readOnly={readOnly}
        w="120px"
        textDecoration={why === undefined ? undefined : "line-through"}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => event.key === "Enter" && commit()}
      />
      <select
        className="plain small"
        aria-label={`Reading ${place + 1} counts`}
        disabled={readOnly}
        value={why ?? ""}
        onChange={(event) => onLeaveOut(event.target.value || null)}
      >
        <option value="">counts</option>
        {[...new Set([...REASONS, ...(why ? [why] : [])])].map((entry) => (
          <option key={entry} value={entry}>{`left out: ${entry}`}</option>
        ))}
      </select>
    </Flex>
  );
}
