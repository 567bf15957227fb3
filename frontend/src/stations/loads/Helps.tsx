import { Box, Button } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { api, type LoadHelp, type LoadRow } from "../../api/client";
import { useDocument, useEdit } from "../../document/context";
import { withValues } from "../../document/document";

/** What would relieve a row, each tried by one click; Undo takes it back. */
export function Helps({ row }: { row: LoadRow }) {
  const document = useDocument();
  const { edit, readOnly } = useEdit();
  const [found, setFound] = useState<LoadHelp[]>([]);
  const { check, path, member, moment } = row;
  useEffect(() => {
    const stop = new AbortController();
    const ask = async () => {
      try {
        const body = {
          document: document as unknown as Record<string, unknown>,
          check,
          path,
          member,
          moment,
        };
        const { data } = await api.POST("/api/loads/helps/", { body, signal: stop.signal });
        if (data) setFound(data);
      } catch {
        // Asked again meanwhile, or no connection: the row stands without its helps.
      }
    };
    void ask();
    return () => stop.abort();
  }, [document, check, path, member, moment]);
  if (found.length === 0) return null;
  return (
    <Box mt="1" data-helps>
      <Box fontSize="12.5px" color="ink.second">
        What would relieve it:
      </Box>
      {found.map((help) => (
        <Box key={help.text} display="flex" gap="2" alignItems="center" py="1" fontSize="sm" data-help>
          <Box flex="1">{help.text}</Box>
          {help.changes.length > 0 && (
            <Button
              size="xs"
              disabled={readOnly}
              onClick={() => edit((old) => withValues(old, valuesOf(help)))}
              aria-label={`Try it: ${help.text}`}
            >
              Try it
            </Button>
          )}
        </Box>
      ))}
    </Box>
  );
}

const valuesOf = (help: LoadHelp): Record<string, unknown> =>
  Object.fromEntries(help.changes.map(({ path, value }) => [path, JSON.parse(value)]));
