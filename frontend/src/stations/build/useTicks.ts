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
import { waitsUntil } from "./words";

type Reason = BuildStep["held"][number];
export type Doing = StepEntry["doing"];
export interface More {
  minutes?: number | null;
  value?: string;
  note?: string;
  reason?: string;
  /** When it was done, where that is not now. */
  at?: string;
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
      const { id, about, title, made_from } = step;
      const now = new Date().toISOString();
      const none = { value: "", note: "", reason: "" };
      setBack((old) => old.filter((entry) => entry.entry.step !== id));
      add({ ...none, id: newId(), step: id, doing, at: now, about, title, made_from, ...more });
    },
    waiting: waiting.length,
    back,
    shown: useMemo(
      () => withEntries(shown, [...sent, ...waiting], account, Date.now()),
      [shown, sent, waiting, account],
    ),
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
      return entries.map((entry) => ({
        entry,
        reasons: [{ words: refusalText(error.refusal), step: "", until: null }],
      }));
    throw error;
  }
}

/**
 * What the server shows, and what was said here since. The core has listed what has to be so before each step; here it is
 * looked up what of that is so, and `build.test.tsx` holds it against what the core answers after each tick.
 */
export function withEntries(shown: BuildShown, entries: StepEntry[], by: string, now: number): BuildShown {
  if (entries.length === 0) return shown;
  const last = new Map(entries.map((entry) => [entry.step, entry]));
  const said = shown.steps.map((step) => ({ ...step, ...carried(last.get(step.id), by) }));
  const done = new Set(said.flatMap((step) => (step.done ? [step.id] : [])));
  const standing = new Map(
    said.flatMap((step) => (stands(step) ? [[step.id, Date.parse(step.at ?? "")]] : [])),
  );
  const steps = said.map((step) => ({
    ...step,
    held: stands(step) ? [] : unmet(step.conditions, standing, done, now),
  }));
  const opened: Loose[] = steps.flatMap((step) => (step.done ? step.opens : []));
  return {
    ...shown,
    steps,
    next: nextOf(steps),
    loose: opened.filter((entry) => !done.has(entry.closed_by)),
    done: done.size,
  };
}

function carried(entry: StepEntry | undefined, by: string): Partial<BuildStep> {
  if (!entry) return {};
  return {
    done: entry.doing === "done",
    by,
    at: entry.at,
    took: entry.minutes ?? null,
    value: entry.value ?? "",
    note: entry.note ?? "",
    reason: entry.reason ?? "",
    later: entry.doing === "later" ? (entry.reason ?? "") : "",
    // Said just now, it is of the design as it is.
    once_more: "",
  };
}

/** Done, and not to be done once more: on that alone others may stand. */
const stands = (step: BuildStep) => step.done && !step.once_more;

function unmet(
  conditions: BuildStep["conditions"],
  standing: ReadonlyMap<string, number>,
  done: ReadonlySet<string>,
  now: number,
): Reason[] {
  return conditions.flatMap(({ step, words, wait, waiting, since }): Reason[] => {
    if (since) return done.has(since) && !done.has(step) ? [{ step, words, until: null }] : [];
    const at = standing.get(step);
    if (at === undefined) return [{ step, words, until: null }];
    const until = at + 1000 * wait;
    return wait && until > now ? [{ step, words: waiting, until: new Date(until).toISOString() }] : [];
  });
}

/** Those that nothing holds back but time, in their order, those that need not wait first. */
function nextOf(steps: BuildStep[]): string[] {
  const free = steps.filter((step) => !stands(step) && step.held.every((reason) => reason.until));
  return free.toSorted((a, b) => (waitsUntil(a) ?? 0) - (waitsUntil(b) ?? 0)).map((step) => step.id);
}
