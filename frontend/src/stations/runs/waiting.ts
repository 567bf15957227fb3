/** Runs that were typed and that the server does not have yet, kept on the device: by account and vehicle. */
import type { Refusal } from "../../api/client";
import type { DesignDocument } from "../../document/document";
import type { RunDocument } from "./run";

export interface Waiting {
  /** Drawn here: sent twice it is one run. */
  id: string;
  document: RunDocument;
  design: DesignDocument | null;
  tried: number | null;
  made_at: string;
  refused?: Refusal;
}

const place = (account: string, vehicle: string) => `ydrometer-runs|${account}|${vehicle}`;

export function waitingRuns(account: string, vehicle: string): Waiting[] {
  return read(place(account, vehicle), []);
}

export function keepWaiting(account: string, vehicle: string, runs: Waiting[]): void {
  write(place(account, vehicle), runs.length ? runs : null);
}

/** What stands half typed in the form. */
export function storedEntry<T>(account: string, vehicle: string): T | null {
  return read<T | null>(`${place(account, vehicle)}|form`, null);
}

export function keepEntry(account: string, vehicle: string, entry: unknown): void {
  write(`${place(account, vehicle)}|form`, entry);
}

function read<T>(key: string, otherwise: T): T {
  try {
    return (JSON.parse(localStorage.getItem(key) ?? "null") as T | null) ?? otherwise;
  } catch {
    return otherwise;
  }
}

function write(key: string, value: unknown): void {
  try {
    if (value === null) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // A device without room, or private: it stays in the page as long as that is open.
  }
}
