/**
 * What every station works with, in three parts that change at different times: the document with each key
 * press, its figures with each answer, the ways to change it never. What shows figures alone is then not
 * painted twice for one key press.
 */
import { createContext, type ReactNode, useContext, useMemo } from "react";
import type { Fault, Live, LoadRow, Loads, Mounted, PartsAnswer, Sweep, Uncertainties } from "../api/client";
import { isWithin } from "../ui/fields/faults";
import type { Wish } from "./asking";
import type { DesignDocument } from "./document";
import type { Selected } from "./selected";
import { useAfterPaint } from "./useAfterPaint";

export interface Edit {
  readOnly: boolean;
  select: (selected: Selected | null) => void;
  /** What else is looked at: a picked moment, a told ratio, the room of the drawing. */
  wish: (part: Partial<Wish>) => void;
  /** While something is dragged or a key is held down, what is heavy to paint waits. */
  hold: (held: boolean) => void;
  /** Ask about these documents once nothing else is to be done: they are what the next keys lead to. */
  ahead: (documents: DesignDocument[]) => void;
  /** Which of several things is swept where more than one can be. */
  sweep: (of: string) => void;
  /** The document as it is now: what is painted may be a key press older. */
  present: () => DesignDocument;
  /** Put another value at a path; undefined takes it away. Edits of one gesture are undone together. */
  set: (path: string, value: unknown, gesture?: string) => void;
  edit: (change: (document: DesignDocument) => DesignDocument, gesture?: string) => void;
  setMark: () => void;
  dropMark: () => void;
}

export interface Figures {
  live: Live;
  sweep: Sweep | null;
  held: boolean;
  faults: Fault[];
  selected: Selected | null;
  wish: Wish;
  marked: DesignDocument | null;
  uncertainties: Uncertainties | null;
}

/** Whose page it is, where the design is kept, and when it was last saved, null while it is not. */
export interface Place {
  account: string;
  vehicle: string;
  workshop: string;
  saved: string | null;
}

/** What a working is asked for: a measure, or a row of Loads. */
export interface Asked {
  measure: string;
  at: number | null;
  row?: LoadRow;
}

const IGNORED = () => undefined;
const AskContext = createContext<(question: Asked) => void>(IGNORED);
const PlaceContext = createContext<Place | null>(null);
const EditContext = createContext<Edit | null>(null);
const FiguresContext = createContext<Figures | null>(null);
const DocumentContext = createContext<DesignDocument | null>(null);
const LoadsContext = createContext<Loads | null>(null);
const PartsContext = createContext<PartsAnswer | null>(null);
const MountedContext = createContext<Mounted | null>(null);

function used<T>(value: T | null): T {
  if (value === null) throw new Error("this is wanted inside WorkProvider");
  return value;
}

/** Opens the working of a number. */
export const useAsk = () => useContext(AskContext);
export const useEdit = () => used(useContext(EditContext));
export const useFigures = () => used(useContext(FiguresContext));
export const usePlace = () => used(useContext(PlaceContext));
export const useDocument = () => used(useContext(DocumentContext));
/** How near its parts are to what they stand; null until that has been answered. */
export const useLoadsShown = () => useContext(LoadsContext);
/** What the design needs, and what was said of it; null until that has been answered. */
export const usePartsAnswer = () => useContext(PartsContext);
/** How the design stands on its plate; null until that has been asked for and answered. */
export const useMounted = () => useContext(MountedContext);

interface Props {
  place: Place;
  edit: Edit;
  figures: Figures;
  document: DesignDocument;
  mounted?: Mounted | null;
  loads?: Loads | null;
  parts?: PartsAnswer | null;
  onAsk?: (question: Asked) => void;
  children: ReactNode;
}

export function WorkProvider({
  place,
  edit,
  figures,
  document,
  mounted = null,
  loads = null,
  parts = null,
  onAsk = IGNORED,
  children,
}: Props) {
  return (
    <AskContext value={onAsk}>
      <PlaceContext value={place}>
        <EditContext value={edit}>
          <FiguresContext value={figures}>
            <DocumentContext value={document}>
              <MountedContext value={mounted}>
                <LoadsContext value={loads}>
                  <PartsContext value={parts}>{children}</PartsContext>
                </LoadsContext>
              </MountedContext>
            </DocumentContext>
          </FiguresContext>
        </EditContext>
      </PlaceContext>
    </AskContext>
  );
}

/** What may be painted after the drawing and the readout: a frame later, and now and then while something is held. */
export function Later({ children }: { children: ReactNode }) {
  return <Behind wait={NOW_AND_THEN_MS}>{children}</Behind>;
}

/** What is heavy to paint: it follows a frame later, and waits as long as something is held. */
export function Last({ children }: { children: ReactNode }) {
  return <Behind wait={Number.POSITIVE_INFINITY}>{children}</Behind>;
}

/** Between two changes of what follows while something is held. */
const NOW_AND_THEN_MS = 250;

function Behind({ wait, children }: { wait: number; children: ReactNode }) {
  const [figures, document] = [useFigures(), useDocument()];
  const now = useMemo(() => ({ figures, document }), [figures, document]);
  const shown = useAfterPaint(now, figures.held ? wait : 0);
  return (
    <FiguresContext value={shown.figures}>
      <DocumentContext value={shown.document}>{children}</DocumentContext>
    </FiguresContext>
  );
}

/** The fault at a path, or within it. */
export function faultAt(faults: Fault[], path: string): Fault | undefined {
  return faults.find((fault) => isWithin(fault, path));
}

export function siAt(live: Live, path: string): number | undefined {
  return live.quantities.find((q) => q.path === path)?.si;
}
