import { Box, Button } from "@chakra-ui/react";
import type { LoadRow } from "../../api/client";
import { useEdit } from "../../document/context";
import { useHelps, useTry } from "./useHelps";

/** What would relieve a row, each tried by one click; Undo takes it back. */
export function Helps({ row, keyed }: { row: LoadRow; keyed: boolean }) {
  const { readOnly } = useEdit();
  const found = useHelps(row);
  const tried = useTry();
  if (found.length === 0) return null;
  return (
    <Box mt="1" data-helps>
      <Box fontSize="12.5px" color="ink.second">
        {`What would relieve it${keyed ? " (keys 1 to 3 over the bars)" : ""}:`}
      </Box>
      {found.map((help, i) => (
        <Box key={help.text} display="flex" gap="2" alignItems="center" py="1" fontSize="sm" data-help>
          <Box flex="1">
            {keyed && help.changes.length > 0 && (
              <Box as="span" fontFamily="mono" color="ink.second" mr="1">
                {i + 1}
              </Box>
            )}
            {help.text}
          </Box>
          {help.changes.length > 0 && (
            <Button
              size="xs"
              disabled={readOnly}
              onClick={() => tried(help)}
              aria-label={`Try it: ${help.text}`}
              data-screen-only
            >
              Try it
            </Button>
          )}
        </Box>
      ))}
    </Box>
  );
}
