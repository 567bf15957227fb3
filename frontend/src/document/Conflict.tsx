import { Box, Button, Flex } from "@chakra-ui/react";
import type { Conflict as Found } from "../api/client";
import { hour } from "../ui/when";
import { type DesignDocument, spoken } from "./document";
import { merge } from "./merge";

interface Props {
  conflict: Found;
  /** What both changes were made from. */
  base: DesignDocument;
  mine: DesignDocument;
  onDecide: (document: DesignDocument) => void;
}

const MOST = 8;

/** Two people changed the same values: only these are asked about, everything else of both is kept. */
export function Conflict({ conflict, base, mine, onDecide }: Props) {
  const { theirs } = conflict;
  const others = theirs.document as unknown as DesignDocument;
  const { collisions } = merge(base, mine, others);
  const at = hour(theirs.saved_at);
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
        {theirs.author ?? "Somebody"} saved revision {theirs.number} of this vehicle at {at}, and changed what
        you changed too. Nothing was overwritten; all other changes of you both are kept.
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
          {collisions.slice(0, MOST).map((difference) => (
            <tr key={difference.path}>
              <Box as="td" pr="6">
                {spoken(difference.path)}
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
      {collisions.length > MOST && <Box fontSize="sm">and {collisions.length - MOST} more</Box>}
      <Flex gap="2" wrap="wrap">
        <Button variant="solid" onClick={() => onDecide(merge(base, mine, others).document)}>
          Keep yours of these
        </Button>
        <Button onClick={() => onDecide(merge(base, mine, others, "theirs").document)}>
          Take theirs (Undo brings yours back)
        </Button>
      </Flex>
    </Box>
  );
}
