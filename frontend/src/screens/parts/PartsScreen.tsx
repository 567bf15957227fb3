import { Box, Button, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { useVocabulary } from "../../api/session";
import { useWorkshopAtHand } from "../../api/workshops";
import { type Bin, type PartDocument, partOf, partsOf } from "../../document/bin/bin";
import type { PartKind } from "../../document/bin/cells";
import { type BinOnScreen, useBin } from "../../document/bin/useBin";
import { DownloadLink } from "../../ui/DownloadLink";
import { TopBar, useBar } from "../../ui/frame/TopBar";
import { UndoRedo } from "../../ui/frame/UndoRedo";
import { BulkAdd } from "./BulkAdd";
import { ImportList } from "./ImportList";
import { KindList } from "./KindList";
import { PartsTable } from "./PartsTable";

/** The bin of a workshop: what is owned and what could be bought. */
export default function PartsScreen() {
  const { chosen, homeless } = useWorkshopAtHand();
  const kinds = useVocabulary().data?.parts;
  if (!chosen || !kinds)
    return (
      <>
        <TopBar />
        {homeless && <Box p="4">You are in no workshop: make one on the bench first.</Box>}
      </>
    );
  return (
    <BinOf
      key={chosen.id}
      workshop={chosen.id}
      name={chosen.name}
      kinds={kinds}
      readOnly={chosen.role === "viewer"}
    />
  );
}

interface Props {
  workshop: string;
  name: string;
  kinds: PartKind[];
  readOnly: boolean;
}

function BinOf({ workshop, name, kinds, readOnly }: Props) {
  const bin = useBin(useBar().username, workshop);
  const [search, setSearch] = useSearchParams();
  const kind =
    kinds.find((k) => k.kind === search.get("kind")) ?? (kinds.find((k) => k.kind === "gear") as PartKind);
  const choose = (chosen: string) => setSearch({ workshop, kind: chosen }, { replace: true });
  const parts = partsOf(bin.state);
  const [open, setOpen] = useState<Way>(null);
  const words = readOnly ? "you may look, not change" : (SAVING[bin.saving] ?? bin.saving);
  const add = (documents: PartDocument[]) => {
    bin.dispatch({ type: "edit", changes: additions(bin.state, documents) });
    setOpen(null);
  };
  return (
    <Flex direction="column" h={{ md: "100%" }}>
      <TopBar workshop={workshop} saved={{ kind: bin.saving, words }}>
        <Box as="h1" fontWeight="600">
          Parts of {name}
        </Box>
        <UndoRedo
          undoable={bin.state.past.length > 0}
          redoable={bin.state.future.length > 0}
          dispatch={bin.dispatch}
        />
      </TopBar>
      {bin.state.conflict.length > 0 && <BinConflict bin={bin} />}
      <Flex flex="1" minH="0" direction={{ base: "column", md: "row" }}>
        <KindList kinds={kinds} parts={parts} chosen={kind.kind} onChoose={choose} />
        <Box as="main" flex="1" minW="0" minH="0" p="2" display="flex" flexDirection="column" gap="2">
          {open === "lines" && kind.listed && <BulkAdd workshop={workshop} kind={kind} onAdd={add} />}
          {open === "file" && <ImportList workshop={workshop} kind={kind} state={bin.state} onAdd={add} />}
          {bin.loaded && (
            <PartsTable
              key={kind.kind}
              kind={kind}
              bin={bin}
              readOnly={readOnly}
              tools={!readOnly && <Ways workshop={workshop} kind={kind} open={open} onOpen={setOpen} />}
            />
          )}
        </Box>
      </Flex>
    </Flex>
  );
}

const SAVING: Record<string, string> = {
  saved: "saved",
  saving: "saving",
  faulty: "what is marked cannot be read yet; it is kept on this device",
};

type Way = "lines" | "file" | null;

interface WaysProps {
  workshop: string;
  kind: PartKind;
  open: Way;
  onOpen: (way: Way) => void;
}

/** Adding many, and lists in files. */
function Ways({ workshop, kind, open, onOpen }: WaysProps) {
  const toggle = (way: Way) => onOpen(open === way ? null : way);
  const address = `/api/workshops/${workshop}/parts/export`;
  return (
    <Flex gap="2" wrap="wrap" align="center" ml="auto">
      {kind.listed && (
        <Button variant="solid" aria-expanded={open === "lines"} onClick={() => toggle("lines")}>
          Add many {kind.many.toLowerCase()}
        </Button>
      )}
      <Button aria-expanded={open === "file"} onClick={() => toggle("file")}>
        Read a list
      </Button>
      <Box fontSize="sm" color="ink.second">
        Save all as <FileLink href={`${address}/xlsx/`}>XLSX</FileLink>
        <FileLink href={`${address}/csv/`}>CSV</FileLink> these as{" "}
        <FileLink href={`${address}/csv/?kind=${kind.kind}`}>CSV</FileLink>
      </Box>
    </Flex>
  );
}

function additions(state: Bin, documents: PartDocument[]) {
  return documents.map((document) => ({
    id: document.id,
    before: partOf(state, document.id),
    after: document,
  }));
}

function FileLink({ href, children }: { href: string; children: string }) {
  return (
    <Box asChild color="spruce" textDecoration="underline" px="1">
      <DownloadLink href={href}>{children}</DownloadLink>
    </Box>
  );
}

/** Somebody else has changed the same parts; neither choice loses what the other typed without a word. */
function BinConflict({ bin }: { bin: BinOnScreen }) {
  const { conflict } = bin.state;
  return (
    <Box role="alertdialog" aria-label="Somebody else has changed parts" bg="copper.wash" px="4" py="2">
      <Box fontWeight="600">
        Somebody else has changed {conflict.slice(0, 6).join(", ")}
        {conflict.length > 6 && ` and ${conflict.length - 6} more`} since. Nothing was overwritten.
      </Box>
      <Flex gap="2" mt="1" wrap="wrap">
        <Button variant="solid" onClick={() => bin.dispatch({ type: "keep mine" })}>
          Save yours over theirs
        </Button>
        <Button onClick={() => bin.dispatch({ type: "take theirs" })}>Take theirs</Button>
      </Flex>
    </Box>
  );
}
