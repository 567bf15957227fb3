import { Box, Button, Flex } from "@chakra-ui/react";
import {
  type KeyboardEvent,
  memo,
  type ReactNode,
  useCallback,
  useDeferredValue,
  useMemo,
  useState,
} from "react";
import type { Mounted, OnPlate, PlanShaft } from "../../api/client";
import { useDocument, useEdit, useFigures, useMounted } from "../../document/context";
import {
  FIRST_PLATE,
  filled,
  moved,
  plateOf,
  type Stack,
  shaftOf,
  withPlate,
  withShaft,
} from "../../document/mounting";
import { keysOf, useCommands } from "../../ui/commands/commands";
import { useBar } from "../../ui/frame/TopBar";
import { FRAME } from "../shared/frame";
import { Adapters } from "./Adapters";
import { Clashes } from "./Clashes";
import { Numbers } from "./Numbers";
import { Placings } from "./Placings";
import { Plan } from "./Plan";
import { PlanTable } from "./PlanTable";
import { PlateChoice } from "./PlateChoice";
import { PlateFields } from "./PlateFields";
import { SectionView } from "./SectionView";
import { ShaftPanel } from "./ShaftPanel";
import { chosenPlate, chosenShaft, selectionOf } from "./selection";
import { Templates } from "./Templates";
import { useWalkAhead } from "./useWalkAhead";

const ZOOMS = [1, 1.5, 2, 3, 4.5, 7];

/** On a phone what clashes comes right under the plan. */
const AREAS = {
  gridTemplateAreas: { base: `"plan" "side" "lower"`, lg: `"plan side" "lower side"` },
  gridTemplateColumns: { base: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 316px" },
  gridTemplateRows: { lg: "auto 1fr" },
};

type Lower = "numbers" | "section" | "places" | "plate" | "adapters" | "templates";
const TABS: { name: Lower; words: string }[] = [
  { name: "numbers", words: "Numbers for the hands" },
  { name: "section", words: "Section along the shaft" },
  { name: "places", words: "Ways to place it" },
  { name: "plate", words: "Plate and frame" },
  { name: "adapters", words: "Adapters" },
  { name: "templates", words: "Templates" },
];

/** Does it go together: the plan to scale, what clashes and by how much, and the numbers to set it by. */
export function FitStation() {
  const mounted = useMounted();
  if (!mounted) return <Box role="status" aria-label="Loading" h="480px" />;
  return <Fitted mounted={mounted} />;
}

const KEYS = keysOf("Fit, while its plan has the focus", [
  ["← → ↑ ↓", "the shaft from hole to hole, or along its slot"],
  ["L", "measure a distance"],
  ["F", "fill the stack of the shaft with the spacers at hand"],
  ["T", "the plan as a table"],
  ["+ − 0", "larger, smaller, whole"],
]);

function Fitted({ mounted }: { mounted: Mounted }) {
  const document = useDocument();
  const edit = useEdit();
  const { selected } = useFigures();
  useCommands(KEYS);
  const { letterKeys } = useBar().preferences;
  const [zoom, setZoom] = useState(0);
  const [measuring, setMeasuring] = useState(false);
  const [table, setTable] = useState(false);
  const [lower, setLower] = useState<Lower>("numbers");
  const [clash, setClash] = useState<number | null>(null);
  const fit = chosenPlate(mounted, selected);
  const { behind } = fit;
  const unplated = behind ? !plateOf(document, behind).plate : !document.fit;
  const shaft = chosenShaft(fit, selected);
  // The plan and its clashes are painted first; numbers and fields follow a moment later.
  const laterMounted = useDeferredValue(mounted);
  const later = useMemo(() => chosenPlate(laterMounted, selected), [laterMounted, selected]);
  const laterShaft = useMemo(() => chosenShaft(later, selected), [later, selected]);

  const select = useCallback((chosen: PlanShaft) => edit.select(selectionOf(fit, chosen)), [edit, fit]);
  const walked = useWalkAhead(mounted, fit);
  const move = useCallback(
    (path: string, to: { x: number; y: number }, gesture: string) => {
      walked(path, to);
      edit.edit((old) => moved(old, path, to, behind), gesture);
    },
    [edit, behind, walked],
  );
  const fill = () => {
    const section = fit.sections.find((entry) => entry.shaft === shaft?.path);
    const stack = shaft && shaftOf(edit.present(), shaft.path)?.stack;
    if (!section?.filled || !shaft || !stack) return;
    const entries = section.filled;
    edit.edit((old) => {
      const present = shaftOf(old, shaft.path)?.stack as Stack;
      return withShaft(old, shaft.path, { stack: filled(present, entries) });
    });
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const letters: Record<string, () => void> = {
      l: () => setMeasuring((old) => !old),
      t: () => setTable((old) => !old),
      f: fill,
    };
    const others: Record<string, () => void> = {
      "+": () => setZoom((old) => Math.min(ZOOMS.length - 1, old + 1)),
      "-": () => setZoom((old) => Math.max(0, old - 1)),
      "0": () => setZoom(0),
    };
    const act = others[event.key] ?? (letterKeys ? letters[event.key.toLowerCase()] : undefined);
    if (!act) return;
    event.preventDefault();
    act();
  };
  return (
    <Box display="grid" gap="2" alignItems="start" {...AREAS} data-fit>
      <Box gridArea="plan" bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" minW="0">
        <Tools {...{ measuring, setMeasuring, table, setTable, zoom, setZoom }} />
        {mounted.plates.length > 1 && <PlateChoice plates={mounted.plates} chosen={fit} />}
        {unplated && !edit.readOnly && <NoPlate fit={fit} />}
        {table ? (
          <PlanTable fit={fit} />
        ) : (
          <Plan
            fit={fit}
            selected={shaft?.path ?? null}
            zoom={ZOOMS[zoom] as number}
            measuring={measuring}
            readOnly={edit.readOnly}
            chosenClash={clash}
            onSelect={select}
            onMove={move}
            onKey={onKey}
          />
        )}
      </Box>
      <Box gridArea="lower" {...FRAME} minW="0">
        <Tabs chosen={lower} onChoose={setLower} />
        {lower === "numbers" && <Numbers fit={later} selected={selected} />}
        {lower === "section" && <SectionView fit={fit} shaft={shaft} onFill={fill} />}
        {lower === "places" && <Placings key={behind} behind={behind} />}
        {lower === "plate" && <PlateFields behind={behind} />}
        {lower === "adapters" && <Adapters made={laterMounted.adapters} />}
        {lower === "templates" && <Templates shaft={shaft} behind={behind} />}
      </Box>
      <Box gridArea="side" display="grid" gap="2" minW="0">
        <Clashes fit={fit} chosen={clash} onChoose={setClash} onSelect={edit.select} />
        {laterShaft && <ShaftPanel shaft={laterShaft} />}
      </Box>
    </Box>
  );
}

interface ToolsProps {
  measuring: boolean;
  setMeasuring: (on: boolean) => void;
  table: boolean;
  setTable: (on: boolean) => void;
  zoom: number;
  setZoom: (zoom: number) => void;
}

/** What is done with the plan. It is not painted anew while a shaft is moved. */
const Tools = memo(function Tools({ measuring, setMeasuring, table, setTable, zoom, setZoom }: ToolsProps) {
  return (
    <Flex gap="1" px="3" py="2" align="center" wrap="wrap" data-screen-only>
      <Tool on={measuring} onClick={() => setMeasuring(!measuring)} keys="L">
        Measure
      </Tool>
      <Tool on={table} onClick={() => setTable(!table)} keys="T">
        As a table
      </Tool>
      <Button size="xs" disabled={zoom === 0} onClick={() => setZoom(zoom - 1)} title="-">
        Smaller
      </Button>
      <Button size="xs" disabled={zoom === ZOOMS.length - 1} onClick={() => setZoom(zoom + 1)} title="+">
        Larger
      </Button>
      <Box flex="1" />
      <Box fontSize="12.5px" color="ink.second">
        {measuring
          ? "click two places"
          : "drag a shaft, or walk it with the arrows; Shift for tenths of a millimetre"}
      </Box>
    </Flex>
  );
});

/** What is told under the plan. */
const Tabs = memo(function Tabs({ chosen, onChoose }: { chosen: Lower; onChoose: (tab: Lower) => void }) {
  return (
    <Flex gap="4" mb="2" fontSize="sm" wrap="wrap" role="tablist" aria-label="Fit" data-screen-only>
      {TABS.map((tab) => (
        <button
          key={tab.name}
          type="button"
          role="tab"
          className="tab"
          aria-selected={chosen === tab.name}
          onClick={() => onChoose(tab.name)}
        >
          {tab.words}
        </button>
      ))}
    </Flex>
  );
});

interface ToolProps {
  on: boolean;
  keys: string;
  onClick: () => void;
  children: ReactNode;
}

function Tool({ on, keys, onClick, children }: ToolProps) {
  return (
    <Button size="xs" variant={on ? "solid" : undefined} aria-pressed={on} onClick={onClick} title={keys}>
      {children}
    </Button>
  );
}

function NoPlate({ fit }: { fit: OnPlate }) {
  const { edit } = useEdit();
  const first = fit.plan.shafts[0];
  return (
    <Flex px="3" pb="2" gap="3" align="center" wrap="wrap" data-no-plate>
      <Box fontSize="sm">
        Nothing is said yet of how it is mounted: the shafts stand in a row, as far apart as they have to.
      </Box>
      <Button
        size="sm"
        variant="solid"
        onClick={() =>
          edit((old) => {
            const plated = withPlate(old, fit.behind, { plate: FIRST_PLATE });
            return first ? moved(plated, first.path, { x: 0.12, y: 0.072 }, fit.behind) : plated;
          })
        }
      >
        Put it on a plate with a grid of holes
      </Button>
    </Flex>
  );
}
