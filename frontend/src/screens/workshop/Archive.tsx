import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { useNavigate } from "react-router";
import { type ArchiveRow, refusalText } from "../../api/client";
import { FileInput } from "../../ui/fields/FileInput";
import { ProgressBar } from "../../ui/ProgressBar";
import { Trouble } from "../../ui/Trouble";
import { type ArchiveHeld, useArchive } from "./useArchive";

/** The workshop as one file, and a file as a workshop. */
export function Archive({ workshop }: { workshop: string }) {
  const file = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const open = async (created: string) => {
    await queries.invalidateQueries({ queryKey: ["workshops"] });
    navigate(`/?workshop=${created}`);
  };
  const out = useArchive(`ydrometer-archive-out-${workshop}`, open);
  const into = useArchive("ydrometer-archive-in", open);
  const writing = isBusy(out);
  const opening = isBusy(into);
  return (
    <Box mt="8" data-archive>
      <Heading as="h2" size="md" mb="1">
        As one file
      </Heading>
      <Box color="ink.second" mb="2">
        All designs and their revisions, the bin, all runs, builds with their photos, plans, races and sets of
        exercises, in open formats.
      </Box>
      <Flex gap="2" wrap="wrap" align="center">
        <Button disabled={writing} onClick={() => void out.save(workshop)}>
          Save the archive
        </Button>
        <Button disabled={opening} onClick={() => file.current?.click()}>
          Open one as a workshop of its own
        </Button>
        <FileInput
          ref={file}
          accept=".zip,application/zip"
          hidden
          aria-label="Archive file"
          onPick={(picked) => void into.open(picked)}
        />
      </Flex>
      <OnItsWay held={out} />
      <OnItsWay held={into} />
      {out.row && (
        <Box as="details" mt="2" fontSize="sm" color="ink.second">
          <Box as="summary" cursor="pointer">
            What stays behind
          </Box>
          <Box as="ul" pl="5" listStyleType="disc">
            {out.row.stays.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </Box>
        </Box>
      )}
    </Box>
  );
}

function isBusy({ row, moved }: ArchiveHeld): boolean {
  return moved !== null || row?.state === "waiting" || row?.state === "working";
}

/** How far it is, how to end it, and what is to be done where it stopped. */
function OnItsWay({ held }: { held: ArchiveHeld }) {
  const { row, moved, trouble, goOn, cancel } = held;
  if (!row) return <Trouble text={trouble} />;
  const busy = isBusy(held);
  return (
    <Box mt="3" data-on-its-way={row.direction}>
      {(busy || row.state === "coming") && (
        <Flex gap="3" align="center" wrap="wrap">
          <Box>
            <Box role="status" fontSize="sm">
              {wordsOf(row, moved)}
            </Box>
            <ProgressBar
              label={row.direction === "out" ? "How much is written" : "How much is opened"}
              share={moved ?? (row.steps ? row.done / row.steps : null)}
              width="240px"
            />
          </Box>
          {goOn && (
            <Button size="xs" onClick={() => void goOn()}>
              Go on
            </Button>
          )}
          <Button size="xs" onClick={() => void cancel()}>
            Cancel
          </Button>
        </Flex>
      )}
      {!busy && row.state === "done" && row.direction === "out" && !trouble && (
        <Box role="status" fontSize="sm">
          {row.name}, {size(row)}, is saved.
        </Box>
      )}
      {row.state === "failed" && (
        <Trouble text={`It came to nothing. ${refusalText({ detail: "", faults: row.faults })}`} />
      )}
      <Trouble text={trouble} />
    </Box>
  );
}

const size = ({ size }: ArchiveRow) =>
  size < 1e6 ? `${Math.ceil(size / 1e3)} kB` : `${(size / 1e6).toFixed(1)} MB`;

function wordsOf(row: ArchiveRow, moved: number | null): string {
  const percent = moved === null ? "" : `${Math.floor(100 * moved)} % of ${size(row)}`;
  if (row.state === "coming")
    return percent
      ? `${row.name}: ${percent} sent`
      : `${row.name} has not come whole: choose it again to go on`;
  if (percent) return `Fetching: ${percent}`;
  if (row.state === "waiting") return "Waits for its turn";
  return row.direction === "out"
    ? `Writing: ${row.done} of ${row.steps}`
    : `Opening: step ${row.done} of ${row.steps}`;
}
