import { Box, Button, Flex } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api, type PartList, troubleText } from "../../api/client";
import type { PartDocument } from "../../document/bin/bin";
import type { PartKind } from "../../document/bin/cells";
import { FaultTable } from "./ImportList";

interface Props {
  workshop: string;
  kind: PartKind;
  onAdd: (parts: PartDocument[]) => void;
}

const EXAMPLES: Record<string, string> = {
  gear: "module 1, width 10: 12 13 14x2 15 16 18 20",
  pulley: "pitch 5: 18 20 24x2 36",
  sprocket: "pitch 6.35: 9 11 14 28",
  belt: "pitch 5: 60 70 90 100",
  chain: "pitch 6.35: 48 60",
  wheel: "100 110 125x4 mm",
  v_pulley: "63 80 100 mm",
  v_belt: "800 900 1000 mm",
  spacer: "bore 6: 0.5 1x4 2x4 5 mm",
  gearbox: "efficiency 0.9: 3 5 10",
};
const QUIET_MS = 250;

/** Lines of sizes become parts; what they are is shown before anything is put into the bin. */
export function BulkAdd({ workshop, kind, onAdd }: Props) {
  const [text, setText] = useState("");
  const read = useMutation({
    mutationFn: (lines: string): Promise<PartList> =>
      answer(
        api.POST("/api/workshops/{workshop}/parts/bulk/", {
          params: { path: { workshop } },
          body: { kind: kind.kind as never, text: lines },
        }),
      ),
  });
  const { mutate } = read;
  useEffect(() => {
    if (!text.trim()) return;
    const wait = window.setTimeout(() => mutate(text), QUIET_MS);
    return () => window.clearTimeout(wait);
  }, [text, mutate]);
  const found = text.trim() ? read.data : undefined;
  // What is being typed still has not been read: it is not what would be put in.
  const good = found && found.faults.length === 0 && read.variables === text;
  return (
    <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p="3" data-bulk>
      <label htmlFor="bulk">
        A line for each size, such as <code>{EXAMPLES[kind.kind]}</code>; “x2” says how many are owned.
      </label>
      <textarea
        id="bulk"
        className="plain"
        rows={3}
        value={text}
        onChange={(event) => setText(event.target.value)}
        style={{ fontFamily: "var(--chakra-fonts-mono)", marginTop: "6px" }}
      />
      {found && found.faults.length > 0 && <FaultTable faults={found.faults} first="line" />}
      {read.isError && <Box role="alert">{troubleText(read.error)}</Box>}
      <Flex gap="3" mt="2" align="center">
        <Button
          variant="solid"
          disabled={!good || found.parts.length === 0}
          onClick={() => found && onAdd(found.parts as unknown as PartDocument[])}
        >
          Put {good ? found.parts.length : ""} into the bin
        </Button>
        {good && (
          <Box fontSize="sm" color="ink.second" fontFamily="mono">
            {found.parts
              .slice(0, 12)
              .map((part) => (part as PartDocument).id)
              .join("  ")}
            {found.parts.length > 12 && ` and ${found.parts.length - 12} more`}
          </Box>
        )}
      </Flex>
    </Box>
  );
}
