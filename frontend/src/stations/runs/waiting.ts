/** Runs that were typed and that the server does not have yet, kept on the device: by account and vehicle. */
import type { Refusal } from "../../api/client";
import type { DesignDocument } from "../../document/document";
import { keptKey, readKept, readList, writeKept } from "../../ui/kept";
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

const place = (account: string, vehicle: string) => keptKey("runs", account, vehicle);
const form = (account: string, vehicle: string) => keptKey("runs", account, vehicle, "form");

export function waitingRuns(account: string, vehicle: string): Waiting[] {
  return readList(place(account, vehicle));
}

export function keepWaiting(account: string, vehicle: string, runs: Waiting[]): void {
  writeKept(place(account, vehicle), runs.length ? runs : null);
}

/** What stands half typed in the form. */
export function storedEntry<T>(account: string, vehicle: string): T | null {
  return readKept<T | null>(form(account, vehicle), null);
}

export function keepEntry(account: string, vehicle: string, entry: unknown): void {
  writeKept(form(account, vehicle), entry);
}
