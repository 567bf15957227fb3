/**
 * What is kept in the browser until the server has it. Each thing belongs to an account and to a place, a vehicle or a
 * workshop; it leaves the device with the account.
 */
import { useCallback, useState } from "react";
import { dropFiles } from "./keptFiles";

const PREFIX = "ydrometer-";
const KINDS = ["draft", "bin", "build", "inspection", "parts", "photos", "plan", "runs"] as const;

export type KeptKind = (typeof KINDS)[number];

export interface Kept {
  key: string;
  kind: KeptKind;
  place: string;
  /** What it is within the place: a tab of a draft, a step that something is typed at; mostly empty. */
  part: string;
}

export function keptKey(kind: KeptKind, account: string, place: string, part = ""): string {
  return [`${PREFIX}${kind}`, account, place, ...(part ? [part] : [])].join("|");
}

/** All that is kept for an account. */
export function keptOf(account: string): Kept[] {
  return Object.keys(localStorage).flatMap((key) => {
    const [head = "", of, place = "", ...part] = key.split("|");
    const kind = KINDS.find((known) => head === PREFIX + known);
    return kind && of === account ? [{ key, kind, place, part: part.join("|") }] : [];
  });
}

/** Take away what is kept for an account, of one place or of all. */
export async function dropKept(account: string, place?: string): Promise<void> {
  for (const kept of keptOf(account))
    if (place === undefined || kept.place === place) localStorage.removeItem(kept.key);
  await dropFiles(keptKey("photos", account, place ?? ""));
}

export function readKept<T>(key: string, otherwise: T): T {
  try {
    return (JSON.parse(localStorage.getItem(key) ?? "null") as T | null) ?? otherwise;
  } catch {
    return otherwise;
  }
}

/** A list; empty where another version of the page has kept something else. */
export function readList<T>(key: string): T[] {
  const kept = readKept<T[]>(key, []);
  return Array.isArray(kept) ? kept : [];
}

/** @param value null takes it away. */
export function writeKept(key: string, value: unknown): void {
  try {
    if (value === null) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // A device without room, or private: it stays in the page as long as that is open.
  }
}

/** What is being typed, through a reload or a look elsewhere; null begins it anew. */
export function useKept<T>(key: string, first: () => T): [T, (value: T | null) => void] {
  const [value, setValue] = useState(() => readKept(key, null) ?? first());
  const put = useCallback(
    (next: T | null) => {
      writeKept(key, next);
      setValue(next ?? first());
    },
    [key, first],
  );
  return [value, put];
}
