import { Box, Button, Flex } from "@chakra-ui/react";
import { useRef, useState } from "react";
import { refusalText } from "../../../api/client";
import { useDocument } from "../../../document/context";
import { FileInput } from "../../../ui/fields/FileInput";
import { QuantityField } from "../../../ui/fields/QuantityField";
import { useUnits } from "../../../ui/fields/units";
import type { RunDocument } from "../run";
import type { Runs } from "../useRuns";
import { FoundRuns, Heard } from "./Heard";
import { readLines, serialOf } from "./serial";
import { useListened } from "./useListened";

/** One's own instrument: its lines pasted, from a file, or over a cable as they come. */
export function InstrumentPanel({ runs }: { runs: Runs }) {
  const units = useUnits();
  const design = useDocument();
  const [lines, setLines] = useState<string[]>([]);
  const [distance, setDistance] = useState(String(design.run?.distance ?? "10 m"));
  const [trouble, setTrouble] = useState("");
  const [listening, setListening] = useState(false);
  const stop = useRef<(() => Promise<void>) | null>(null);
  const listened = useListened(lines, distance);
  const titles = new Map(units.runs.map((kind) => [kind.kind, kind.title]));
  const serial = serialOf(navigator);
  const connect = async () => {
    setTrouble("");
    try {
      const port = await serial?.requestPort();
      if (!port) return;
      setLines([]);
      stop.current = await readLines(port, (line) => setLines((old) => [...old, line]));
      setListening(true);
    } catch (error) {
      setTrouble(
        `The port cannot be opened: ${error instanceof Error ? error.message : "no reason was given"}.`,
      );
    }
  };
  const disconnect = async () => {
    await stop.current?.();
    stop.current = null;
    setListening(false);
  };
  const logAll = async () => {
    setTrouble("");
    for (const run of listened?.runs ?? []) {
      const { refused } = await runs.log(run as RunDocument, null);
      if (refused) return setTrouble(refusalText(refused));
    }
    setLines([]);
  };
  return (
    <Box as="section" aria-label="Your own instrument" data-instrument>
      <Box fontSize="13.5px" color="ink.second" mb="1">
        A counter, light gates or a logger that speaks lines of JSON: paste them, open a file of them
        {serial ? ", or plug it in" : ""}. docs/instruments.md says which lines.
      </Box>
      <textarea
        className="plain"
        rows={4}
        aria-label="Lines of the instrument"
        placeholder={'{"instrument": "gates"}\n{"t": 12.345, "gate": 1}\n{"t": 15.755, "gate": 2}'}
        value={lines.join("\n")}
        readOnly={listening}
        onChange={(event) => setLines(event.target.value ? event.target.value.split("\n") : [])}
      />
      <Flex gap="2" align="end" wrap="wrap" mt="1">
        <Box w="130px">
          <QuantityField
            label="Between the gates"
            dimension="distance"
            value={distance}
            onChange={(text) => setDistance(text ?? "")}
          />
        </Box>
        <label className="file">
          Open a file
          <FileInput
            accept=".jsonl,.json,.txt,.log"
            onPick={async (file) => setLines((await file.text()).split(/\r?\n/))}
          />
        </label>
        {serial && (
          <Button onClick={() => void (listening ? disconnect() : connect())} data-serial>
            {listening ? "Unplug" : "Plug in a counter"}
          </Button>
        )}
        <Button
          variant="solid"
          disabled={!listened?.runs.length || listened.faults.length > 0}
          onClick={() => void logAll()}
          data-log-lines
        >
          Log what was found
        </Button>
      </Flex>
      {trouble && (
        <Box role="alert" color="brick">
          {trouble}
        </Box>
      )}
      {listened && <Heard listened={listened} />}
      {listened && <FoundRuns listened={listened} titles={titles} />}
      {listened && listened.runs.length === 0 && listened.faults.length === 0 && (
        <Box role="status" color="ink.second">
          {`${listened.read} lines, and no run in them yet.`}
        </Box>
      )}
    </Box>
  );
}
