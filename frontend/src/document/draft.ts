/**
 * What is typed but not yet saved, kept by the browser until the server has it: one draft an account, a vehicle and a
 * tab, so that two tabs never take each other's.
 */

import { keptKey, keptOf, readKept, writeKept } from "../ui/kept";
import type { DesignDocument } from "./document";
import { newId } from "./newId";

export interface Draft {
  /** The revision it was made from, and its document, so that two people's changes can be told apart. */
  base: number;
  from: DesignDocument;
  document: DesignDocument;
  at: string;
}

/** A draft that another tab has left behind. */
export interface Left extends Draft {
  tab: string;
}

const lock = (tab: string) => `ydrometer-tab-${tab}`;

let mine: Promise<string> | undefined;

/** This tab's own name: the same after a reload, another one in a copy of the tab. */
export function tabName(): Promise<string> {
  mine ??= claim(sessionStorage.getItem("ydrometer-tab") ?? newId());
  return mine;
}

async function claim(wanted: string): Promise<string> {
  const name = (await holds(wanted))
    ? wanted
    : `${wanted.slice(0, 8)}-${Math.random().toString(36).slice(2)}`;
  if (name !== wanted) await holds(name);
  sessionStorage.setItem("ydrometer-tab", name);
  return name;
}

/** Milliseconds within which a page that is loaded again has let its name go. */
const LET_GO = 5000;

/** Hold a tab's name for as long as the page lives; false where another page holds it. */
function holds(name: string): Promise<boolean> {
  if (!navigator.locks) return Promise.resolve(true);
  // After a reload the page before it is the one that still holds the name, for a moment.
  const options = reloaded() ? { signal: AbortSignal.timeout(LET_GO) } : { ifAvailable: true };
  return new Promise((told) => {
    navigator.locks
      .request(lock(name), options, (lock) => {
        told(lock !== null);
        return lock ? new Promise(() => {}) : undefined;
      })
      .catch(() => told(false));
  });
}

function reloaded(): boolean {
  const [entry] = performance.getEntriesByType?.("navigation") ?? [];
  return (entry as PerformanceNavigationTiming | undefined)?.type === "reload";
}

export function keepDraft(account: string, vehicle: string, tab: string, draft: Omit<Draft, "at">): void {
  writeKept(keptKey("draft", account, vehicle, tab), { ...draft, at: new Date().toISOString() });
}

export function dropDraft(account: string, vehicle: string, tab: string): void {
  writeKept(keptKey("draft", account, vehicle, tab), null);
}

export function readDraft(account: string, vehicle: string, tab: string): Draft | null {
  return whole(keptKey("draft", account, vehicle, tab));
}

/** What tabs that are gone have left of a vehicle, the newest first. */
export async function leftBehind(account: string, vehicle: string, tab: string): Promise<Left[]> {
  const held = new Set((await navigator.locks?.query())?.held?.map((entry) => entry.name));
  return keptOf(account)
    .filter(
      ({ kind, place, part: by }) =>
        kind === "draft" && place === vehicle && by !== tab && !held.has(lock(by)),
    )
    .flatMap(({ key, part: by }) => {
      const draft = whole(key);
      return draft ? [{ ...draft, tab: by }] : [];
    })
    .sort((one, other) => other.at.localeCompare(one.at));
}

/** Null where another version of the page has written it. */
function whole(key: string): Draft | null {
  const draft = readKept<Draft | null>(key, null);
  return draft?.document && draft.from ? draft : null;
}
