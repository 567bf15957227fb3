import { Box, Button } from "@chakra-ui/react";
import { Link } from "react-router";
import type { LoadedPart, LoadRow, Loads } from "../../api/client";
import { useAsk, useEdit, usePlace } from "../../document/context";
import { Field } from "../../document/Field";
import { useUnits } from "../../ui/fields/units";
import { StandingMark } from "../../ui/StandingMark";
import { percent, STANDS } from "../../words/loads";
import { Helps } from "./Helps";
import { against } from "./words";

/** All that is checked of one part: what it has to stand against what it does, and what would settle the rest. */
export function PartRows({ part, words }: { part: LoadedPart; words: Loads["words"] }) {
  const keyed = relieved(part);
  const folds = foldsOf(part.rows);
  const cautions = [...new Set(part.rows.map((row) => row.caution).filter(Boolean))];
  return (
    <Box data-part-rows={part.title}>
      <Box as="h2" fontSize="lg" fontWeight="700" _firstLetter={{ textTransform: "uppercase" }}>
        {part.title}
      </Box>
      {words
        .filter((word) => word.path === part.path)
        .map((word) => (
          <Box key={word.text} role="note" fontSize="sm" bg="copper.wash" px="2" py="1" mb="1" data-word>
            {word.text}
          </Box>
        ))}
      {folds.open.map((row) => (
        <Row key={rowKey(row)} row={row} keyed={row === keyed} needs={row.needs} />
      ))}
      <Fold
        rows={folds.holding}
        words={folds.holding.length === 1 ? "1 more holds" : `${folds.holding.length} more hold`}
        name="holding"
      />
      <Fold
        rows={folds.unknown}
        words={`${folds.unknown.length} more could be judged`}
        name="unknown"
        open={folds.open.length === 0}
      />
      {cautions.map((caution) => (
        <Box
          key={caution}
          fontSize="12.5px"
          borderLeftWidth="3px"
          borderColor="ochre"
          pl="2"
          mt="2"
          data-caution
        >
          {caution}
        </Box>
      ))}
    </Box>
  );
}

const rowKey = (row: LoadRow) => `${row.check} ${row.member} ${row.moment}`;

/** What stands open: the worst row and all that are near a limit; what holds, and what nobody has said enough of. */
function foldsOf(rows: LoadRow[]) {
  const known = rows.filter((row) => row.state !== "unknown");
  const open = known.filter((row, i) => i === 0 || row.state !== "ok");
  const unknown = rows.filter((row) => row.state === "unknown");
  return { open, holding: known.filter((row) => !open.includes(row)), unknown };
}

interface FoldProps {
  rows: LoadRow[];
  words: string;
  name: string;
  open?: boolean;
}

/** Rows that can wait, folded under how many they are. */
function Fold({ rows, words, name, open = false }: FoldProps) {
  if (rows.length === 0) return null;
  return (
    <Box asChild borderTopWidth="1px" borderColor="line" py="2">
      <details open={open} data-fold={name}>
        <summary>{words}</summary>
        {rows.map((row, i) => (
          <Row
            key={rowKey(row)}
            row={row}
            keyed={false}
            needs={row.needs.filter((need) => !wantedBefore(rows.slice(0, i), need.path))}
          />
        ))}
      </details>
    </Box>
  );
}

/** The row whose helps the keys try: the worst one that needs any. */
export const relieved = (part: LoadedPart): LoadRow | null =>
  part.rows.find((row) => row.state === "over" || row.state === "near") ?? null;

/** Whether a row above asks for it already. */
const wantedBefore = (rows: LoadRow[], path: string) =>
  rows.some((row) => row.needs.some((need) => need.path === path));

function Row({ row, keyed, needs }: { row: LoadRow; keyed: boolean; needs: LoadRow["needs"] }) {
  const units = useUnits();
  const ask = useAsk();
  const figure = row.use === null ? (row.state === "over" ? "over" : "–") : percent(row.use);
  return (
    <Box borderTopWidth="1px" borderColor="line" py="2" data-check={row.check} data-state={row.state}>
      <Box display="flex" gap="2" alignItems="center">
        <StandingMark standing={STANDS[row.state]} />
        <Box flex="1" fontWeight="600" _firstLetter={{ textTransform: "uppercase" }}>
          {row.title}
          {row.member && `, ${row.part}`}
        </Box>
        <Box asChild fontFamily="mono" fontWeight="700" fontSize="xl" textDecoration="underline dotted">
          <button
            type="button"
            onClick={() => ask({ measure: row.check, at: null, row })}
            aria-label={`${figure}: where it comes from, ${row.part}, ${row.title}`}
            data-ask
          >
            {figure}
          </button>
        </Box>
      </Box>
      <Box fontFamily="mono" fontSize="13.5px">
        {against(units, row)}
        {row.moment && ` · ${row.moment}`}
      </Box>
      {row.assumed.length > 0 && <Small>{`Assumed: ${row.assumed.join(", ")}.`}</Small>}
      {row.remarks.map((remark) => (
        <Small key={remark}>{`${remark[0]?.toUpperCase()}${remark.slice(1)}.`}</Small>
      ))}
      {needs.length > 0 && <Needs needs={needs} />}
      {row.offers.length > 0 && <Offers row={row} />}
      {(row.state === "near" || row.state === "over") && <Helps row={row} keyed={keyed} />}
    </Box>
  );
}

/** What would settle a row, to be typed here, or in Fit where it belongs. */
function Needs({ needs }: { needs: LoadRow["needs"] }) {
  const { vehicle } = usePlace();
  return (
    <Box mt="1" data-needs>
      <Small>Not known. This would settle it:</Small>
      <Box display="grid" gap="2" gridTemplateColumns="repeat(auto-fill, minmax(130px, 1fr))">
        {needs.map((need) =>
          need.dimension ? (
            <Field key={need.path} path={need.path} label={need.words} dimension={need.dimension} optional />
          ) : (
            <Link key={need.path} to={`/vehicles/${vehicle}/fit`}>{`${need.words}, in Fit`}</Link>
          ),
        )}
      </Box>
    </Box>
  );
}

/** Usual values, with what they are usual of; taken over by a click, never by themselves. */
function Offers({ row }: { row: LoadRow }) {
  const { set, readOnly } = useEdit();
  return (
    <Box display="flex" flexWrap="wrap" gap="1" mt="1" alignItems="center" data-screen-only data-offers>
      <Small>Usual:</Small>
      {row.offers.map((offer) => (
        <Button
          key={offer.of}
          size="xs"
          disabled={readOnly}
          onClick={() => set(offer.path, offer.value)}
          data-offer
        >
          {`${offer.value.replace("degC", "°C")}, ${offer.of}`}
        </Button>
      ))}
    </Box>
  );
}

const Small = ({ children }: { children: string }) => (
  <Box fontSize="12.5px" color="ink.second">
    {children}
  </Box>
);
