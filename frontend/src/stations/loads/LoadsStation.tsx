import { Box, Button, Flex } from "@chakra-ui/react";
import { useCallback, useMemo, useState } from "react";
import type { LoadedPart, Loads } from "../../api/client";
import { useDocument, useEdit, useFigures, useLoadsShown } from "../../document/context";
import { saveText } from "../../document/files";
import { show, useUnits } from "../../ui/fields/units";
import { StandingMark } from "../../ui/StandingMark";
import { STANDS } from "../../words/loads";
import { FRAME } from "../shared/frame";
import { Bars, partKey } from "./Bars";
import { Day } from "./Day";
import { CurrentCharts, HeatCharts } from "./Heat";
import { PartRows } from "./PartRows";
import { RowsTable } from "./RowsTable";
import { ShadedLine } from "./ShadedLine";
import { useDay } from "./useDay";
import { useLoadKeys } from "./useLoadKeys";
import { csv, momentsOf } from "./words";

/** What gets hot, slips, bends or breaks, and how near it is to that. */
export function LoadsStation() {
  const loads = useLoadsShown();
  return loads ? <Loaded loads={loads} /> : <Box role="status" aria-label="Loading" h="480px" />;
}

function Loaded({ loads }: { loads: Loads }) {
  const { live, selected } = useFigures();
  const { select } = useEdit();
  const [moment, setMoment] = useState("");
  const [key, setKey] = useState<string | null>(null);
  const [table, setTable] = useState(false);
  const chosen = chosenPart(loads, key, selected?.path ?? null);
  const choose = useCallback(
    (part: LoadedPart) => {
      setKey(partKey(part));
      if (/stages\[\d+\]$/.test(part.path)) select({ path: part.path, member: "driver" });
      if (part.state === "unknown") afterPaint(firstWanted);
    },
    [select],
  );
  const choosePath = useCallback(
    (path: string) => {
      const part = loads.parts.find((part) => part.path === path);
      if (part) choose(part);
    },
    [loads, choose],
  );
  const drawn = useDay(loads);
  const onKey = useLoadKeys(chosen, () => setTable((old) => !old));
  return (
    <Box
      display="grid"
      gap="2"
      alignItems="start"
      gridTemplateAreas={{ base: `"bars" "panel" "day"`, lg: `"bars panel" "day panel"` }}
      gridTemplateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 316px" }}
      gridTemplateRows={{ lg: "auto 1fr" }}
      _print={{ display: "block" }}
      data-loads
    >
      <Box gridArea="bars" minW="0" {...FRAME}>
        <Flex gap="3" align="baseline">
          <StandingMark standing={STANDS[loads.state]} size={17} />
          <Box as="h2" fontSize="xl" fontWeight="700" lineHeight="1.25" data-sentence>
            {loads.sentence}
          </Box>
        </Flex>
        <Words loads={loads} onChoose={choosePath} />
        <ShadedLine line={live.view.line} parts={loads.parts} onChoose={choosePath} />
        <Tools
          loads={loads}
          moment={moment}
          onMoment={setMoment}
          table={table}
          onTable={() => setTable(!table)}
        />
        <Box mt="1">
          <Bars
            parts={loads.parts}
            moment={moment}
            chosen={chosen && partKey(chosen)}
            onChoose={choose}
            onKey={onKey}
          />
        </Box>
        <Box display={table ? "block" : "none"} _print={{ display: "block" }} mt="2">
          <RowsTable loads={loads} />
        </Box>
        <Box fontSize="12.5px" color="ink.second" mt="2">
          The upright line is what a part stands; strokes are the other moments, a dashed one is the mark. A
          check says how near a figure is to a limit, never that a design is safe: makers' instructions, event
          rules and law go first.
        </Box>
      </Box>
      <Box gridArea="panel" minW="0" {...FRAME}>
        {chosen ? <PartRows part={chosen} words={loads.words} /> : <Box>Choose a part.</Box>}
      </Box>
      <Box gridArea="day" minW="0" {...FRAME}>
        <Box as="h2" fontSize="lg" fontWeight="700" mb="1">
          The day and its heat
        </Box>
        <Day loads={loads} />
        {loads.left_out.map((why) => (
          <Box key={why} role="alert" color="brick" mt="1" data-left-out>
            {`Left out: ${why}.`}
          </Box>
        ))}
        <Box mt="3">
          {drawn && <HeatCharts heat={drawn.heat} />}
          {drawn && <CurrentCharts currents={drawn.currents} />}
        </Box>
      </Box>
    </Box>
  );
}

/** Turning on the spot, and how many parts have a word to be read; each is told at its part. */
function Words({ loads, onChoose }: { loads: Loads; onChoose: (path: string) => void }) {
  return (
    <Box fontSize="sm" mt="1">
      <TurnWords turn={loads.turn} />
      {loads.words.map((word) => {
        const part = loads.parts.find((part) => part.path === word.path);
        return (
          part && (
            <Box key={word.text} data-screen-only>
              <button
                type="button"
                className="link"
                onClick={() => onChoose(word.path)}
                data-word-at={word.path}
              >
                {`A word about the ${part.title}`}
              </button>
            </Box>
          )
        );
      })}
    </Box>
  );
}

interface ToolsProps {
  loads: Loads;
  moment: string;
  onMoment: (moment: string) => void;
  table: boolean;
  onTable: () => void;
}

function Tools({ loads, moment, onMoment, table, onTable }: ToolsProps) {
  const { name } = useDocument();
  const { marked } = useFigures();
  const { setMark, dropMark } = useEdit();
  const moments = useMemo(() => momentsOf(loads), [loads]);
  return (
    <Flex gap="1" mt="1" align="center" wrap="wrap" data-screen-only>
      <select
        className="plain small"
        aria-label="Moment"
        value={moment}
        onChange={(event) => onMoment(event.target.value)}
      >
        <option value="">the worst of all moments</option>
        {moments.map((moment) => (
          <option key={moment} value={moment}>
            {moment}
          </option>
        ))}
      </select>
      <Flex ml="auto" gap="1" wrap="wrap">
        <Button size="xs" onClick={setMark} title="M">
          Set mark
        </Button>
        {marked && (
          <Button size="xs" onClick={dropMark}>
            Drop it
          </Button>
        )}
        <Button size="xs" aria-pressed={table} onClick={onTable} title="T">
          Table
        </Button>
        <Button size="xs" onClick={() => window.print()}>
          Print
        </Button>
        <Button
          size="xs"
          onClick={() => saveText(`${name || "design"}-loads.csv`, "text/csv", csv(loads))}
          data-csv
        >
          Save as CSV
        </Button>
      </Flex>
    </Flex>
  );
}

const afterPaint = (act: () => void) => requestAnimationFrame(() => requestAnimationFrame(act));

/** The field of what would settle a part comes under the hand at once. */
function firstWanted(): void {
  document.querySelector<HTMLElement>("[data-needs] input")?.focus();
}

/** The part that was clicked, else that of what is chosen on the Line, else the worst one. */
function chosenPart(loads: Loads, key: string | null, path: string | null): LoadedPart | null {
  const worst = [...loads.parts].sort((a, b) => (b.rows[0]?.use ?? 0) - (a.rows[0]?.use ?? 0))[0];
  return (
    loads.parts.find((part) => partKey(part) === key) ??
    (key === null && worst && (worst.rows[0]?.use ?? 0) > 0 ? worst : null) ??
    loads.parts.find((part) => part.path === path) ??
    worst ??
    null
  );
}

function TurnWords({ turn }: { turn: Loads["turn"] }) {
  const units = useUnits();
  if (!turn) return null;
  const { number, unit } = show(units, "force", turn.force_each_side);
  const bus = Object.values(show(units, "current", turn.bus_current)).join(" ");
  const amps = turn.currents
    .map((current) => Object.values(show(units, "current", current)).join(" "))
    .join(" and ");
  return (
    <Box data-turn>
      {turn.possible && turn.rate !== null
        ? `It turns on the spot against ${number} ${unit} along each side, once around in ${((2 * Math.PI) / turn.rate).toFixed(2)} s, with ${amps} a motor and ${bus} from the supply.`
        : `It cannot turn on the spot: that takes ${number} ${unit} along each side, and its motors stall at ${amps}.`}
    </Box>
  );
}
