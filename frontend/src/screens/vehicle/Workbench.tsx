import { Box, Button, Flex } from "@chakra-ui/react";
import {
  lazy,
  memo,
  Suspense,
  useCallback,
  useDeferredValue,
  useMemo,
  useReducer,
  useRef,
  useState,
} from "react";
import { Link, Navigate } from "react-router";
import { Conflict } from "../../document/Conflict";
import { type Edit, WorkProvider } from "../../document/context";
import { type DesignDocument, withValue } from "../../document/document";
import { saveDesignFile } from "../../document/files";
import { history } from "../../document/history";
import { isSelected, type Selected } from "../../document/selected";
import { recall, useKeptSteps } from "../../document/steps";
import { type SaveState, useAutosave } from "../../document/useAutosave";
import { useDoubts } from "../../document/useDoubts";
import { useLive, type Wish } from "../../document/useLive";
import { useSweep } from "../../document/useSweep";
import { useUndoKeys } from "../../document/useUndoKeys";
import type { Asked } from "../../document/working/WorkingDrawer";
import { BriefStation } from "../../stations/brief/BriefStation";
import { useAfterFit, useFit } from "../../stations/fit/useFit";
import { LineStation } from "../../stations/line/LineStation";
import { TopBar, useBar } from "../../ui/frame/TopBar";
import { UndoRedo } from "../../ui/frame/UndoRedo";
import { Readout } from "../../ui/readout/Readout";
import { StationList } from "./StationList";

const WorkingDrawer = lazy(() => import("../../document/working/WorkingDrawer"));

interface Props {
  vehicle: string;
  workshop: string;
  station: string;
  stored: DesignDocument;
  first: { number: number; saved_at: string };
  document: DesignDocument;
  readOnly: boolean;
}

const OptionsStation = lazy(() =>
  import("../../stations/options/OptionsStation").then((m) => ({ default: m.OptionsStation })),
);
const FitStation = lazy(() =>
  import("../../stations/fit/FitStation").then((m) => ({ default: m.FitStation })),
);
const STATIONS: Record<string, React.ComponentType> = {
  brief: memo(BriefStation),
  line: memo(LineStation),
  options: memo(OptionsStation),
  fit: memo(FitStation),
};
const FIRST_WHEEL: Selected = { path: "drive.branches[0].stages[0]", member: "driver" };

/** One vehicle with everything around it: stations, readout, undo, saving. */
export function Workbench({ vehicle, workshop, station, stored, first, document: opened, readOnly }: Props) {
  const [past, dispatch] = useReducer(history<DesignDocument>, opened, (document) =>
    recall(vehicle, document),
  );
  const [mark, setMark] = useState<DesignDocument | null>(null);
  const [wish, setWish] = useState<Wish>({ selected: FIRST_WHEEL });
  const { selected } = wish;
  const document = past.present;
  // The question goes out first; what shows the document is painted while it is answered.
  const painted = useDeferredValue(document);
  // Asked before the figures: a shaft under the hand must not wait for what it does not change.
  const { fit: mounted, of: placed } = useFit(workshop, station === "fit" ? document : null);
  const { live, of, faults, trouble } = useLive(useAfterFit(document, placed, station === "fit"), mark, wish);
  const [held, setHeld] = useState(false);
  const wheels = live?.view.line.rows.flatMap((row) => row.wheels) ?? [];
  const swept = wheels.some((w) => isSelected(selected, w.path, w.member)) ? selected : null;
  const sweep = useSweep(of, swept, held);
  useKeptSteps(vehicle, past);
  const doubts = useDoubts(document, useBar().preferences.doubtAssumed);
  const [asked, setAsked] = useState<Asked | null>(null);
  const ask = useCallback((gauge: Asked) => setAsked(gauge), []);
  const { state, rebase } = useAutosave(vehicle, document, first, stored);

  useUndoKeys(dispatch);
  const present = useRef(document);
  present.current = document;
  const edit = useMemo((): Edit => {
    const change: Edit["edit"] = (how, gesture) => {
      if (!readOnly) dispatch({ type: "edit", edit: how, gesture });
    };
    return {
      readOnly,
      // A ratio that somebody was told is asked about for one stage.
      select: (chosen) =>
        setWish((old) => ({
          ...old,
          selected: chosen,
          told: chosen?.path === old.selected?.path ? old.told : undefined,
        })),
      wish: (part) => setWish((old) => ({ ...old, ...part })),
      hold: setHeld,
      present: () => present.current,
      edit: change,
      set: (path, value, gesture) => change((old) => withValue(old, path, value), gesture),
      setMark: () => setMark(present.current),
      dropMark: () => setMark(null),
    };
  }, [readOnly]);
  const figures = useMemo(
    () => live && { live, sweep, held, faults, selected, wish, marked: mark, doubts },
    [live, sweep, held, faults, selected, wish, mark, doubts],
  );

  const saved = state.kind === "saved" ? state.at : null;
  const place = useMemo(() => ({ vehicle, workshop, saved }), [vehicle, workshop, saved]);

  const Station = STATIONS[station];
  if (!Station) return <Navigate to={`/vehicles/${vehicle}/line`} replace />;
  return (
    <Flex direction="column" minH="100%" h={{ md: "100%" }} _print={{ h: "auto", display: "block" }}>
      <TopBar workshop={workshop}>
        <Box as="h1" fontWeight="600">
          {document.name || "Unnamed vehicle"}
        </Box>
        <Box fontSize="sm" color="ink.second" role="status" data-save={state.kind}>
          {readOnly ? "you may look, not change" : saveWords(state)}
        </Box>
        <UndoRedo past={past.past} future={past.future} dispatch={dispatch}>
          <Button size="xs" onClick={() => saveDesignFile(document)}>
            Export
          </Button>
        </UndoRedo>
      </TopBar>
      {trouble && (
        <Box role="alert" bg="copper.wash" px="4" py="1">
          {trouble}
        </Box>
      )}
      {state.kind === "conflict" && (
        <Conflict
          conflict={state.conflict}
          mine={document}
          onKeepMine={() => rebase(state.conflict.theirs.number)}
          onTakeTheirs={() => {
            dispatch({
              type: "edit",
              edit: () => state.conflict.theirs.document as unknown as DesignDocument,
            });
            rebase(state.conflict.theirs.number);
          }}
        />
      )}
      <Flex flex="1" minH="0" direction={{ base: "column", md: "row" }} _print={{ display: "block" }}>
        <StationList
          vehicle={vehicle}
          workshop={workshop}
          live={live}
          targets={document.targets?.length ?? 0}
        />
        <Box
          as="main"
          position="relative"
          flex="1"
          minW="0"
          p="2"
          overflowY={{ md: "auto" }}
          _print={{ overflow: "visible" }}
        >
          {figures ? (
            <WorkProvider {...{ place, edit, figures, mounted }} document={painted}>
              <Suspense fallback={<Box role="status" aria-label="Loading" />}>
                <Station />
              </Suspense>
            </WorkProvider>
          ) : (
            faults.length > 0 && (
              <Unreadable faults={faults.map((f) => `${f.path}: ${f.problem}, ${f.remedy}`)} />
            )
          )}
        </Box>
      </Flex>
      <Box position={{ base: "sticky", md: "static" }} bottom="0" minH="96px" bg="panel">
        {live && <Readout gauges={live.gauges} doubts={doubts} stale={faults.length > 0} onAsk={ask} />}
      </Box>
      {asked && (
        <Suspense fallback={null}>
          <WorkingDrawer asked={asked} document={document} onAsk={ask} onClose={() => setAsked(null)} />
        </Suspense>
      )}
    </Flex>
  );
}

function Unreadable({ faults }: { faults: string[] }) {
  return (
    <Box role="alert">
      <p>This design cannot be read. It is kept as it is; undo, or take an earlier one from the bench.</p>
      <ul>
        {faults.map((fault) => (
          <li key={fault}>{fault}</li>
        ))}
      </ul>
      <Link to="/">Go to the bench</Link>
    </Box>
  );
}

function saveWords(state: SaveState): string {
  switch (state.kind) {
    case "saved":
      return `saved ${new Date(state.at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit", hourCycle: "h23" })}`;
    case "saving":
      return "saving";
    case "waiting":
      return `not saved yet: ${state.why}`;
    case "conflict":
      return "not saved: somebody else has saved";
  }
}
