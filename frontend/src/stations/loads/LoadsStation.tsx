import { Box, Button, Flex } from "@chakra-ui/react";
import { useCallback, useMemo, useState } from "react";
import type { LoadedPart, Loads } from "../../api/client";
import { useDocument, useEdit, useFigures, useLoadsShown } from "../../document/context";
import { saveText } from "../../document/files";
import { ChoiceField } from "../../ui/fields/ChoiceField";
import { show, useUnits } from "../../ui/fields/units";
import { StandingMark } from "../../ui/StandingMark";
import { Bars, partKey } from "./Bars";
import { Day } from "./Day";
import { HeatCharts } from "./Heat";
import { PartRows } from "./PartRows";
import { momentsOf, STANDS, table } from "./words";

const FRAME = { bg: "panel", borderWidth: "1px", borderColor: "line", borderRadius: "3px", p: "3" } as const;

/** What gets hot, slips, bends or breaks, and how near it is to that. */
export function LoadsStation() {
  const loads = useLoadsShown();
  return loads ? <Loaded loads={loads} /> : <Box role="status" aria-label="Loading" h="480px" />;
}

function Loaded({ loads }: { loads: Loads }) {
  const { name } = useDocument();
  const { selected } = useFigures();
  const { select } = useEdit();
  const [moment, setMoment] = useState("");
  const [key, setKey] = useState<string | null>(null);
  const moments = useMemo(() => momentsOf(loads), [loads]);
  const chosen = chosenPart(loads, key, selected?.path ?? null);
  const choose = useCallback(
    (part: LoadedPart) => {
      setKey(partKey(part));
      if (/stages\[\d+\]$/.test(part.path)) select({ path: part.path, member: "driver" });
    },
    [select],
  );
  return (
    <Box
      display="grid"
      gap="2"
      alignItems="start"
      gridTemplateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 316px" }}
      data-loads
    >
      <Box display="grid" gap="2" minW="0" gridTemplateColumns="minmax(0, 1fr)">
        <Box {...FRAME}>
          <Flex gap="3" align="baseline">
            <StandingMark standing={STANDS[loads.state]} size={17} />
            <Box as="h2" fontSize="xl" fontWeight="700" lineHeight="1.25" data-sentence>
              {loads.sentence}
            </Box>
          </Flex>
          <TurnWords turn={loads.turn} />
          <Flex gap="3" mt="2" align="end" data-screen-only>
            <ChoiceField
              label="moment"
              value={moment}
              options={[["", "all, the worst"], ...moments.map((m): [string, string] => [m, m])]}
              readOnly={false}
              onChange={setMoment}
            />
            <Button
              size="sm"
              onClick={() => saveText(`${name || "design"}-loads.csv`, "text/csv", table(loads))}
              data-csv
            >
              Save as CSV
            </Button>
          </Flex>
          <Box mt="2">
            <Bars parts={loads.parts} moment={moment} chosen={chosen && partKey(chosen)} onChoose={choose} />
          </Box>
          <Box fontSize="12.5px" color="ink.second" mt="2">
            The upright line is what a part stands; strokes are the other moments. A check says how near a
            figure is to a limit, never that a design is safe: makers' instructions, event rules and law go
            first.
          </Box>
        </Box>
        <Box {...FRAME}>
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
            <HeatCharts heat={loads.heat} />
          </Box>
        </Box>
      </Box>
      <Box {...FRAME} minW="0">
        {chosen ? <PartRows part={chosen} /> : <Box>Choose a part.</Box>}
      </Box>
    </Box>
  );
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
  return (
    <Box fontSize="sm" mt="1" data-turn>
      {turn.possible && turn.rate !== null
        ? `It turns on the spot against ${number} ${unit} along each side, once around in ${((2 * Math.PI) / turn.rate).toFixed(2)} s.`
        : `It cannot turn on the spot: that takes ${number} ${unit} along each side, and its motors stall.`}
    </Box>
  );
}
