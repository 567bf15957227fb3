import { Box, Button } from "@chakra-ui/react";
import type { PartsShown } from "../../api/client";
import { withChanges } from "../../document/changes";
import { useEdit } from "../../document/context";
import { FRAME } from "../shared/frame";

/** What one could swap to buy nothing for the line. */
export function Savings({ savings, readOnly }: { savings: PartsShown["savings"]; readOnly: boolean }) {
  const { edit } = useEdit();
  return (
    <Box {...FRAME} data-savings>
      <Box as="h2" fontSize="lg" fontWeight="700">
        Instead of buying
      </Box>
      {savings.map((saving) => (
        <Box key={saving.words} mt="1" fontSize="14px">
          {saving.words}.{" "}
          {!readOnly && (
            <Button size="xs" onClick={() => edit((old) => withChanges(old, saving.changes))}>
              Take these
            </Button>
          )}
        </Box>
      ))}
    </Box>
  );
}
