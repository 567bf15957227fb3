/** Ticks: shown at once, kept on the device until the server has them, taken back with words where it refuses. */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import {
  answer,
  api,
  type BuildShown,
  type BuildStep,
  type HeldBack,
  type Loose,
  RefusedError,
  refusalText,
  type StepEntry,
} from "../../api/client";
import { usePlace } from "../../document/context";
import { readKept, writeKept } from "../../document/kept";
import { clockNow } from "../../ui/when";

const AGAIN_MS = 5000;
const MOST_AT_ONCE = 100;

export type Doing = StepEntry["doing"];
export interface More {
  minutes?: number | null;
  value?: string;
  note?: string;
  reason?: string;
}

/** An entry that the server did not take, and why. */
export interface TakenBack {
  entry: StepEntry;
  reasons: HeldBack["reasons"];
}

export interface Ticks {
  say: (step: BuildStep, doing: Doing, more?: More) => void;
  /** How many wait for a connection. */
  waiting: number;
  back: TakenBack[];
  drop: (id: string) => void;
  trouble: string;
  /** What is shown, with what was said here and has not come back yet. */
  shown: BuildShown;
}

export function useTicks(shown: BuildShown): Ticks {
  const { account, vehicle } = usePlace();
  const queries = useQueryClient();
  const place = `ydrometer-build|${account}|${vehicle}`;
  const [waiting, setWaiting] = useState(() => readKept<StepEntry[]>(place, []));
  const [back, setBack] = useState<TakenBack[]>([]);
  const [trouble, setTrouble] = useState("");
  /** Taken by the server, and not yet in what it shows. */
  const [sent, setSent] = useState<StepEntry[]>([]);
  const newest = useRef(waiting);
  const sending = useRef(false);
  const keep = useCallback(
    (entries: StepEntry[]) => {
      newest.current = entries;
      writeKept(place, entries.length ? entries : null);
      setWaiting(entries);
    },
    [place],
  );
  const send = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      while (newest.current.length > 0) {
        const entries = newest.current.slice(0, MOST_AT_ONCE);
        const refused = await written(vehicle, entries);
        const ids = new Set(entries.map((one) => one.id));
        keep(newest.current.filter((one) => !ids.has(one.id)));
        const held = new Set(refused.map((one) => one.entry.id));
        setSent((old) => [...old, ...entries.filter((one) => !held.has(one.id))]);
        setBack((old) => [...old.filter((one) => !held.has(one.entry.id)), ...refused]);
        setTrouble("");
      }
      await queries.invalidateQueries({ queryKey: ["build", vehicle] });
      setSent([]);
    } catch {
      // No connection: they wait.
    } finally {
      sending.current = false;
    }
  }, [vehicle, keep, queries]);
  useEffect(() => {
    const again = () => newest.current.length > 0 && void send();
    again();
    window.addEventListener("online", again);
    const timer = window.setInterval(again, AGAIN_MS);
    return () => {
      window.removeEventListener("online", again);
      window.clearInterval(timer);
    };
  }, [send]);
  return {
    say: (step, doing, more = {}) => {
      const { id, about, title } = step;
      const now = new Date().toISOString();
      const none = { value: "", note: "", reason: "" };
      const entry = { ...none, id: crypto.randomUUID(), step: id, doing, at: now, about, title, ...more };
      setBack((old) => old.filter((one) => one.entry.step !== id));
      keep([...newest.current, entry]);
      void send();
    },
    waiting: waiting.length,
    back,
    drop: (id) => setBack((old) => old.filter((one) => one.entry.id !== id)),
    trouble,
    shown: useMemo(() => withEntries(shown, [...sent, ...waiting], account), [shown, sent, waiting, account]),
  };
}

/** Send entries; those that were not taken come back with why. */
async function written(vehicle: string, entries: StepEntry[]): Promise<TakenBack[]> {
  try {
    const asked = { params: { path: { vehicle }, query: { now: clockNow() } }, body: { entries } };
    const said = await answer(api.POST("/api/vehicles/{vehicle}/build/entries/", asked));
    return said.held_back.flatMap((one) => {
      const entry = entries.find((own) => own.id === one.id);
      return entry ? [{ entry, reasons: one.reasons }] : [];
    });
  } catch (error) {
    if (error instanceof RefusedError && error.status < 500 && error.status !== 401)
      return entries.map((entry) => ({ entry, reasons: [{ words: refusalText(error.refusal), step: "" }] }));
    throw error;
  }
}

/** What the server shows, and what was said here since: nothing is worked out, only carried over. */
export function withEntries(shown: BuildShown, entries: StepEntry[], by: string): BuildShown {
  if (entries.length === 0) return shown;
  const last = new Map(entries.map((entry) => [entry.step, entry]));
  const done = (id: string) => last.get(id)?.doing === "done";
  const steps = shown.steps.map((step) => {
    const held = step.held.filter((one) => !done(one.step));
    const entry = last.get(step.id);
    return entry
      ? { ...step, held, ...carried(entry, by) }
      : held.length === step.held.length
        ? step
        : { ...step, held };
  });
  const ticked = new Set(steps.filter((step) => step.done).map((step) => step.id));
  const opened: Loose[] = steps.flatMap((step) => (ticked.has(step.id) ? step.opens : []));
  return {
    ...shown,
    steps,
    next: nextOf(shown, steps, ticked),
    loose: opened.filter((one) => !ticked.has(one.closed_by)),
    done: ticked.size,
  };
}

function carried(entry: StepEntry, by: string): Partial<BuildStep> {
  return {
    done: entry.doing === "done",
    by,
    at: entry.at,
    took: entry.minutes ?? null,
    value: entry.value ?? "",
    note: entry.note ?? "",
    reason: entry.reason ?? "",
    later: entry.doing === "later" ? (entry.reason ?? "") : "",
  };
}

/** Those that the server says are next and are not ticked here; behind them what nothing holds back any more. */
function nextOf(shown: BuildShown, steps: BuildStep[], ticked: ReadonlySet<string>): string[] {
  const known = shown.next.filter((id) => !ticked.has(id));
  const free = steps.filter((step) => !step.done && step.held.length === 0 && !known.includes(step.id));
  return [...known, ...free.map((step) => step.id)];
}
