/** Runs that were typed and that the server does not have yet, kept on the device: by account and vehicle. */
import type { Refusal } from "../../api/client";
import type { DesignDocument } from "../../document/document";
import { readKept, writeKept } from "../../document/kept";
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
  return readKept(place(account, vehicle), []);
}

export function keepWaiting(account: string, vehicle: string, runs: Waiting[]): void {
  writeKept(place(account, vehicle), runs.length ? runs : null);
}

/** What stands half typed in the form. */
export function storedEntry<T>(account: string, vehicle: string): T | null {
  return readKept<T | null>(`${place(account, vehicle)}|form`, null);
}

export function keepEntry(account: string, vehicle: string, entry: unknown): void {
  writeKept(`${place(account, vehicle)}|form`, entry);
}
