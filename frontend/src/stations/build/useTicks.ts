/** Ticks: shown at once, kept on the device until the server has them, taken back with words where it refuses. */

import { useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import {
  answer,
  api,
  type BuildShown,
  type BuildStep,
  type HeldBack,
  isRefusal,
  type Loose,
  refusalText,
  type StepEntry,
} from "../../api/client";
import { usePlace } from "../../document/context";
import { newId } from "../../document/newId";
import { useOutbox } from "../../document/useOutbox";
import { keptKey } from "../../ui/kept";
import { clockNow } from "../../ui/when";

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
  /** What is shown, with what was said here and has not come back yet. */
  shown: BuildShown;
}

export function useTicks(shown: BuildShown): Ticks {
  const { account, vehicle } = usePlace();
  const queries = useQueryClient();
  const [back, setBack] = useState<TakenBack[]>([]);
  /** Taken by the server, and not yet in what it shows. */
  const [sent, setSent] = useState<StepEntry[]>([]);
  const { waiting, add } = useOutbox<StepEntry>(keptKey("build", account, vehicle), async (entries) => {
    const refused = await written(vehicle, entries);
    const held = new Set(refused.map((one) => one.entry.id));
    setSent((old) => [...old, ...entries.filter((entry) => !held.has(entry.id))]);
    setBack((old) => [...old.filter((entry) => !held.has(entry.entry.id)), ...refused]);
    // What is shown from now on has them.
    void queries
      .invalidateQueries({ queryKey: ["build", vehicle] })
      .then(() => setSent((old) => old.filter((entry) => !entries.includes(entry))));
  });
  return {
    say: (step, doing, more = {}) => {
      const { id, about, title } = step;
      const now = new Date().toISOString();
      const none = { value: "", note: "", reason: "" };
      setBack((old) => old.filter((entry) => entry.entry.step !== id));
      add({ ...none, id: newId(), step: id, doing, at: now, about, title, ...more });
    },
    waiting: waiting.length,
    back,
    shown: useMemo(() => withEntries(shown, [...sent, ...waiting], account), [shown, sent, waiting, account]),
  };
}

/** Send entries; those that were not taken come back with why. */
async function written(vehicle: string, entries: StepEntry[]): Promise<TakenBack[]> {
  try {
    const request = { params: { path: { vehicle }, query: { now: clockNow() } }, body: { entries } };
    const said = await answer(api.POST("/api/vehicles/{vehicle}/build/entries/", request));
    return said.held_back.flatMap((one) => {
      const entry = entries.find((own) => own.id === one.id);
      return entry ? [{ entry, reasons: one.reasons }] : [];
    });
  } catch (error) {
    if (isRefusal(error))
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
    const held = step.held.filter((reason) => !done(reason.step));
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
