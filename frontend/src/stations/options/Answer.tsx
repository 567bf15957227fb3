import { Box, Button, Flex } from "@chakra-ui/react";
import { memo, useState } from "react";
import { Link } from "react-router";
import type { Options, SearchAnswer } from "../../api/client";
import { useDocument, useEdit, usePlace } from "../../document/context";
import type { DesignDocument } from "../../document/document";
import { DownloadLink } from "../../ui/DownloadLink";
import { useUnits } from "../../ui/fields/units";
import { whole } from "../../ui/money";
import { ProgressBar } from "../../ui/ProgressBar";
import { moment } from "../../ui/when";
import { Columns } from "../shared/Compare";
import { Field } from "./Field";
import { OptionDetail } from "./OptionDetail";
import { isOver, OptionList } from "./OptionList";
import { isOpen, type Searches } from "./useSearches";
import { NearestMiss, Why } from "./Why";

const MOST_PINNED = 4;

/** The search on display: how far it is, or what it has found. */
export function Answer({ searches, onAgain }: { searches: Searches; onAgain: () => void }) {
  const { shown } = searches;
  const present = useDocument();
  if (!shown)
    return (
      <Box color="ink.second">
        Choose layouts on the left and search: every combination of the bin's parts is worked out, the best
        are listed here, and why the others fail is counted.
      </Box>
    );
  return (
    <Box>
      {isOpen(shown) && <Progress answer={shown} onCancel={searches.cancel} />}
      {shown.search.state === "cancelled" && <Box role="status">Cancelled. Nothing was kept of it.</Box>}
      {shown.search.state === "failed" && <Box role="alert">{shown.search.trouble}</Box>}
      {shown.options && (
        <Found
          key={shown.search.id}
          options={shown.options}
          search={shown.search.id}
          stale={JSON.stringify(shown.request.design) !== JSON.stringify(present)}
          onAgain={onAgain}
        />
      )}
    </Box>
  );
}

/** Searches so far, to be opened again. */
export function Earlier({ searches }: { searches: Searches }) {
  const { shown } = searches;
  if (!shown || searches.earlier.length < 2) return null;
  return (
    <Box ml="auto">
      <select
        className="plain small"
        aria-label="Searches so far"
        value={shown.search.id}
        onChange={(event) => searches.open(event.target.value)}
        style={{ maxWidth: "330px" }}
      >
        {searches.earlier.map((search) => (
          <option key={search.id} value={search.id}>
            {moment(search.created_at)}, {whole(search.combinations)} of {search.words}
          </option>
        ))}
      </select>
    </Box>
  );
}

function Progress({ answer, onCancel }: { answer: SearchAnswer; onCancel: () => void }) {
  const { search } = answer;
  const words =
    search.state === "waiting"
      ? `waits: ${search.before} before it in this workshop`
      : search.remaining === null
        ? "begins"
        : `about ${time(search.remaining)} left`;
  return (
    <Box data-progress>
      <Flex align="center" gap="3" wrap="wrap">
        <Box fontFamily="mono" fontSize="23px" fontWeight="700">
          {Math.floor(100 * search.done)} %
        </Box>
        <Box role="status">
          of {whole(search.combinations)} combinations, {words}
        </Box>
        <Button size="xs" onClick={onCancel}>
          Cancel
        </Button>
      </Flex>
      <ProgressBar label="Search" share={search.done} />
    </Box>
  );
}

function time(seconds: number): string {
  if (seconds < 90) return `${Math.max(1, Math.round(seconds))} s`;
  return `${Math.round(seconds / 60)} min`;
}

interface FoundProps {
  options: Options;
  search: string;
  stale: boolean;
  onAgain: () => void;
}

/** What was found is painted when it comes, not when the next search begins. */
const Found = memo(function Found({ options, search, stale, onAgain }: FoundProps) {
  const { edit, setMark, readOnly } = useEdit();
  const [chosen, setChosen] = useState(0);
  const [pinned, setPinned] = useState<ReadonlySet<number>>(new Set());
  const [sound, setSound] = useState(false);
  const over = options.rows.slice(0, options.listed).filter(isOver).length;
  const take = (design: Record<string, unknown> | undefined) => {
    if (!design || readOnly) return;
    // What was there becomes the mark, so that the readout shows what the option changes.
    setMark();
    edit(() => design as unknown as DesignDocument);
  };
  const pin = (index: number) => {
    const left = [...pinned].filter((entry) => entry !== index);
    if (left.length === pinned.size && pinned.size >= MOST_PINNED) return;
    setPinned(new Set(left.length === pinned.size ? [...left, index] : left));
  };
  return (
    <Box data-found>
      <Headline options={options} search={search} stale={stale} onAgain={onAgain} />
      {options.meeting_all === 0 && <NearestMiss options={options} onAdded={onAgain} />}
      <Box
        display="grid"
        gridTemplateColumns={{ base: "minmax(0,1fr)", xl: "minmax(0, 1fr) 290px" }}
        gap="4"
        alignItems="start"
      >
        <Box minW="0">
          {options.rows.length > 0 && (
            <>
              <Field options={options} chosen={chosen} onChoose={setChosen} />
              {over > 0 && (
                <Box as="label" display="block" fontSize="sm" mb="1" data-sound>
                  <input
                    type="checkbox"
                    checked={sound}
                    onChange={(event) => setSound(event.target.checked)}
                  />{" "}
                  Leave out what is over its limit ({over} of the {options.listed} listed; the search itself
                  does not look at loads)
                </Box>
              )}
              <OptionList
                sound={sound}
                options={options}
                chosen={chosen}
                onChoose={setChosen}
                pinned={pinned}
                onTake={(index) => take(options.rows[index]?.design)}
                onPin={pin}
              />
              {!options.whole && (
                <Box role="status" fontSize="sm" color="ink.second" mt="1" data-following>
                  The rest of the list follows …
                </Box>
              )}
            </>
          )}
        </Box>
        <Box minW="0">
          <OptionDetail
            options={options}
            index={chosen}
            pinned={pinned.has(chosen)}
            onTake={take}
            onPin={() => pin(chosen)}
          />
          <Box mt="3">
            <Why options={options} onAdded={onAgain} />
          </Box>
        </Box>
      </Box>
      {pinned.size > 0 && <SideBySide options={options} pinned={[...pinned]} />}
    </Box>
  );
});

function Headline({ options, search, stale, onAgain }: FoundProps) {
  const { vehicle } = usePlace();
  const { readOnly } = useEdit();
  const units = useUnits();
  const targets = options.measures.some((m) => m.wanted);
  return (
    <Flex align="baseline" gap="3" wrap="wrap" mb="2" data-headline>
      <Box fontFamily="mono" fontSize="26px" fontWeight="700" lineHeight="1.1">
        {whole(targets ? options.meeting_all : options.combinations)}
      </Box>
      <Box>
        {targets ? (
          <>
            of {whole(options.combinations)} combinations {options.meeting_all === 1 ? "meets" : "meet"} every
            target
            {options.measures.some(
              (m) =>
                m.wanted && units.measures.some((measure) => measure.loads && measure.name === m.measure),
            ) && " but those on loads, which are worked out for the listed ones alone"}
          </>
        ) : (
          <>
            combinations. Without targets nothing tells which is best:{" "}
            <Link to={`/vehicles/${vehicle}/brief`}>say what it must do</Link>.
          </>
        )}
      </Box>
      <Flex gap="2" ml="auto" align="baseline" fontSize="sm" data-screen-only>
        {stale && !readOnly && (
          <Button size="xs" onClick={onAgain}>
            The design has changed: search again
          </Button>
        )}
        <Box asChild color="spruce" textDecoration="underline">
          <DownloadLink href={`/api/searches/${search}/export/csv/`}>CSV</DownloadLink>
        </Box>
        <Box asChild color="spruce" textDecoration="underline">
          <DownloadLink href={`/api/searches/${search}/export/xlsx/`}>XLSX</DownloadLink>
        </Box>
      </Flex>
    </Flex>
  );
}

/** The present design and what was pinned, by the same rows. */
function SideBySide({ options, pinned }: { options: Options; pinned: number[] }) {
  const others = pinned.map((index) => ({
    name: `option ${index + 1}`,
    document: options.rows[index]?.design as unknown as DesignDocument,
  }));
  return (
    <Box mt="4" data-pinned>
      <Box as="h2" fontWeight="600" mb="1">
        Side by side
      </Box>
      <Columns others={others} />
    </Box>
  );
}
