/** A vehicle being worked on: its document with undo and saving, what is selected and marked, and the core's answers. */
import {
  type Dispatch,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useReducer,
  useRef,
  useState,
} from "react";
import type {
  Conflict,
  Fault,
  Live,
  Loads,
  Mounted,
  Other,
  PartsAnswer,
  Uncertainties,
} from "../../api/client";
import type { Wish } from "../../document/asking";
import type { Edit, Figures, Place } from "../../document/context";
import { type DesignDocument, withValue } from "../../document/document";
import type { Left } from "../../document/draft";
import { type History, type HistoryAction, history } from "../../document/history";
import { type Base, figuresSeen, sawFigures } from "../../document/seen";
import { isSelected, type Selected, SUPPLY } from "../../document/selected";
import { recall, useKeptSteps } from "../../document/steps";
import { type Autosave, type Owner, useAutosave } from "../../document/useAutosave";
import { useLive } from "../../document/useLive";
import { useLoads } from "../../document/useLoads";
import { useOthers } from "../../document/useOthers";
import { useParts } from "../../document/useParts";
import { useSweep } from "../../document/useSweep";
import { useUncertainties } from "../../document/useUncertainties";
import { useUndoKeys } from "../../document/useUndoKeys";
import { useAfterFit, useFit } from "../../stations/fit/useFit";
import { useBar } from "../../ui/frame/TopBar";
import type { StationKey } from "../../words/stations";
import { useDeepLink } from "./useDeepLink";

/** What was opened: which vehicle at which station, as it is stored, and as it may have been typed on meanwhile. */
export interface Vehicle {
  owner: Owner;
  workshop: string;
  station: string;
  stored: Base;
  /** What the document was made from: the stored revision, or an older one. */
  first: Base;
  document: DesignDocument;
  /** When it was typed, where it was never saved. */
  typedAt: string | null;
  /** It is on no bench, and goes after a day unless it is kept. */
  scratch: boolean;
  /** Of other tabs, typed and never saved. */
  left: Left[];
  readOnly: boolean;
}

export interface Work {
  document: DesignDocument;
  /** The document as it is shown: a little behind while the question about it is asked. */
  painted: DesignDocument;
  past: History<DesignDocument>;
  dispatch: Dispatch<HistoryAction<DesignDocument>>;
  saving: Autosave;
  /** What somebody else has saved meanwhile, in a sentence. */
  news: string;
  dropNews: () => void;
  /** Who else is at the vehicle. */
  others: Other[];
  place: Place;
  edit: Edit;
  live: Live | null;
  /** All that stations show of the core's answers; null before the first one. */
  figures: Figures | null;
  mounted: Mounted | null;
  loads: Loads | null;
  parts: PartsAnswer | null;
  uncertainties: Uncertainties | null;
  faults: Fault[];
  trouble: string | null;
}

const FIRST_WHEEL: Selected = { path: "drive.branches[0].stages[0]", member: "driver" };

/** What can be swept besides the wheels of the line. */
const SWEPT = ["motor", SUPPLY.member, "wheel"];

export function useWork(opened: Vehicle): Work {
  const { owner, workshop, station, stored, first } = opened;
  const { vehicle } = owner;
  const [past, dispatch] = useReducer(history<DesignDocument>, opened.document, (document) =>
    recall(vehicle, document),
  );
  const document = past.present;
  useKeptSteps(vehicle, past);
  useUndoKeys(dispatch);
  const [news, setNews] = useState("");
  const merged = useCallback((whole: DesignDocument, by: Conflict["theirs"]) => {
    dispatch({ type: "edit", edit: () => whole });
    setNews(
      `${by.author ?? "Somebody"} saved revision ${by.number} meanwhile. Their changes and yours are both kept.`,
    );
  }, []);
  const saving = useAutosave(owner, document, first, merged, opened.readOnly);
  const { rebase } = saving;
  const arrived = useCallback(
    (revision: Base, author: string | null) => {
      rebase(revision);
      dispatch({ type: "edit", edit: () => revision.document });
      setNews(`${author ?? "Somebody"} saved revision ${revision.number}: it is shown now. Undo goes back.`);
    },
    [rebase],
  );
  const others = useOthers(vehicle, station as StationKey, saving, arrived);
  const { edits, wish, mark, held, sweepOf } = useEdits(document, dispatch, opened.readOnly);
  // Asked before the figures: a shaft under the hand must not wait for what it does not change.
  const {
    fit: mounted,
    of: placed,
    ahead: placedAhead,
  } = useFit(workshop, station === "fit" ? document : null);
  const [seen] = useState(() => figuresSeen(vehicle, document));
  const { live, of, faults, trouble, ahead } = useLive(
    useAfterFit(document, placed, station === "fit"),
    mark,
    wish,
    stored.document,
    seen,
  );
  useEffect(() => {
    if (live && of) sawFigures(vehicle, of, live);
  }, [vehicle, live, of]);
  // The question goes out first; what shows the document is painted while it is answered, or at once with the answer.
  const deferred = useDeferredValue(document);
  const painted = of === document ? document : deferred;
  const asked = station === "fit" ? placedAhead : ahead;
  const edit = useMemo((): Edit => ({ ...edits, ahead: asked }), [edits, asked]);
  const loads = useLoads(document, mark, station === "loads");
  const parts = useParts(vehicle, document, mark, station === "parts");
  const { selected } = wish;
  useDeepLink(station, selected ?? null, FIRST_WHEEL, edit.select);
  const wheels = live?.view.line.rows.flatMap((row) => row.wheels) ?? [];
  useFirstWheel(wheels[0], selected ?? null, edit.select);
  const there = SWEPT.includes(selected?.member ?? "");
  const swept =
    there || wheels.some((w) => isSelected(selected, w.path, w.member)) ? (selected ?? null) : null;
  // Only the Line shows what other sizes would do.
  const sweep = useSweep(of, station === "line" ? swept : null, held, workshop, sweepOf);
  const uncertainties = useUncertainties(vehicle, document, useBar().preferences.doubtAssumed);
  const elsewhere = useMemo(
    () => [...(loads?.targets ?? []), ...(parts?.shown.targets ?? [])],
    [loads?.targets, parts?.shown.targets],
  );
  const judged = useMemo(() => live && withJudged(live, elsewhere), [live, elsewhere]);
  const figures = useMemo(
    () => judged && { live: judged, sweep, held, faults, selected, wish, marked: mark, uncertainties },
    [judged, sweep, held, faults, selected, wish, mark, uncertainties],
  );
  const saved = saving.state.kind === "saved" ? saving.state.at : null;
  const { account } = owner;
  const place = useMemo(() => ({ account, vehicle, workshop, saved }), [account, vehicle, workshop, saved]);
  return {
    document,
    painted,
    past,
    dispatch,
    saving,
    news,
    others,
    dropNews: () => setNews(""),
    place,
    edit,
    live: judged,
    figures,
    mounted,
    loads,
    parts,
    uncertainties,
    faults,
    trouble,
  };
}

/** Where the first branch has no stage of its own, what is looked at first is the first wheel of the trunk. */
function useFirstWheel(first: Selected | undefined, selected: Selected | null, select: Edit["select"]): void {
  const { path, member } = first ?? FIRST_WHEEL;
  const elsewhere = selected === FIRST_WHEEL && path !== FIRST_WHEEL.path;
  useEffect(() => {
    if (elsewhere) select({ path, member });
  }, [elsewhere, path, member, select]);
}

/** Targets that only Loads or the parts list can judge take their values from there; the figures never wait for them. */
function withJudged(live: Live, targets: Loads["targets"]): Live {
  if (!targets.length) return live;
  const gauges = live.gauges.map((gauge) => {
    const match = targets.find((target) => target.number === gauge.target);
    return match ? { ...gauge, ...pick(match) } : gauge;
  });
  return { ...live, gauges };
}

const pick = ({ value, margin, standing, mark }: Loads["targets"][number]) => ({
  value,
  margin,
  standing,
  mark,
});

/** What stations may do to the document, the mark and what is looked at; the same object while nothing forbids it. */
function useEdits(document: DesignDocument, dispatch: Work["dispatch"], readOnly: boolean) {
  const [mark, setMark] = useState<DesignDocument | null>(null);
  const [wish, setWish] = useState<Wish>({ selected: FIRST_WHEEL });
  const [held, setHeld] = useState(false);
  const [sweepOf, setSweepOf] = useState("");
  const present = useRef(document);
  present.current = document;
  const edits = useMemo((): Omit<Edit, "ahead"> => {
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
      sweep: setSweepOf,
      present: () => present.current,
      edit: change,
      set: (path, value, gesture) => change((old) => withValue(old, path, value), gesture),
      setMark: () => setMark(present.current),
      dropMark: () => setMark(null),
    };
  }, [readOnly, dispatch]);
  return { edits, wish, mark, held, sweepOf };
}
