/** The steps that undo and redo go through, kept by the browser's tab across reloads of the page. */
import { useEffect } from "react";
import { differences } from "./document";
import { begin, type History } from "./history";

/** Steps kept either way: the store of a tab is small. */
const KEPT = 60;
const QUIET_MS = 400;

const key = (vehicle: string) => `ydrometer-steps-${vehicle}`;

/** The history that ended with this document, or a new one that begins with it. */
export function recall<T>(vehicle: string, document: T): History<T> {
  try {
    const kept = JSON.parse(sessionStorage.getItem(key(vehicle)) ?? "null") as History<T> | null;
    // Somebody may have saved from elsewhere since: then these steps lead nowhere.
    if (kept && differences(kept.present, document).length === 0) return { ...kept, present: document };
  } catch {
    // A store that is full, forbidden or written by another version only means that undo begins here.
  }
  return begin(document);
}

export function useKeptSteps<T>(vehicle: string, { past, present, future }: History<T>): void {
  useEffect(() => {
    const wait = window.setTimeout(() => {
      try {
        const kept = { past: past.slice(-KEPT), present, future: future.slice(0, KEPT) };
        sessionStorage.setItem(key(vehicle), JSON.stringify(kept));
      } catch {
        sessionStorage.removeItem(key(vehicle));
      }
    }, QUIET_MS);
    return () => window.clearTimeout(wait);
  }, [vehicle, past, present, future]);
}
