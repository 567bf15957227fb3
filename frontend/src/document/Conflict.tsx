import { Box, Button, Flex } from "@chakra-ui/react";
import type { Conflict as Found } from "../api/client";
import { type DesignDocument, differences } from "./document";

interface Props {
  conflict: Found;
  mine: DesignDocument;
  onKeepMine: () => void;
  onTakeTheirs: () => void;
}

const MOST = 8;

/** Somebody else has saved: both versions, where they differ, and what to do about it. Neither choice loses anything. */
export function Conflict({ conflict, mine, onKeepMine, onTakeTheirs }: Props) {
  const { theirs } = conflict;
  const found = differences(mine, theirs.document);
  const at = new Date(theirs.saved_at).toLocaleTimeString([], {
    hour: "2-digit",
    minute: "2-digit",
    hourCycle: "h23",
  });
  return (
    <Box
      role="alertdialog"
      aria-label="Somebody else has saved"
      bg="copper.wash"
      borderBottomWidth="1px"
      borderColor="copper"
      px="4"
      py="3"
    >
      <Box fontWeight="600">
        {theirs.author ?? "Somebody"} saved revision {theirs.number} of this vehicle at {at}. Nothing was
        overwritten.
      </Box>
      <Box as="table" my="2" fontSize="sm">
        <thead>
          <tr>
            {["", "yours", "theirs"].map((head) => (
              <Box as="th" key={head} textAlign="left" pr="6" fontWeight="500" color="ink.second">
                {head}
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {found.slice(0, MOST).map((difference) => (
            <tr key={difference.path}>
              <Box as="td" pr="6">
                {difference.path}
              </Box>
              <Box as="td" pr="6" fontFamily="mono">
                {difference.mine}
              </Box>
              <Box as="td" fontFamily="mono">
                {difference.theirs}
              </Box>
            </tr>
          ))}
        </tbody>
      </Box>
      {found.length > MOST && <Box fontSize="sm">and {found.length - MOST} more</Box>}
      <Flex gap="2" wrap="wrap">
        <Button variant="solid" onClick={onKeepMine}>
          Save yours as the next revision
        </Button>
        <Button onClick={onTakeTheirs}>Go on with theirs (Undo brings yours back)</Button>
      </Flex>
    </Box>
  );
}
