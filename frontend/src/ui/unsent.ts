/** What waits on this device for the server, in words and with the way to where it is sent from. */
import { useEffect, useState } from "react";
import { counted } from "../words/counted";
import type { StationKey } from "../words/stations";
import { type KeptKind, keptOf, readKept } from "./kept";

const LOOK_AGAIN_MS = 2000;

export interface Unsent {
  key: string;
  /** A vehicle, or the workshop of a bin. */
  place: string;
  /** "2 runs". */
  words: string;
  /** The address that sends it when it is opened. */
  to: string;
}

/** The station that sends a kind, and what one of them is called. */
const SENT_FROM: Partial<Record<KeptKind, { station: StationKey; one: string }>> = {
  build: { station: "build", one: "tick" },
  photos: { station: "build", one: "photo" },
  parts: { station: "parts", one: "parts-list tick" },
  plan: { station: "runs", one: "planned run" },
  runs: { station: "runs", one: "run" },
};

/** What is ready to be sent; what is still being typed is none of it. */
export function unsentOf(account: string): Unsent[] {
  return keptOf(account).flatMap(({ key, kind, place, part }): Unsent[] => {
    const count = () => readKept<unknown[]>(key, []).length;
    if (kind === "draft") return [{ key, place, words: "design changes", to: `/vehicles/${place}/brief` }];
    if (kind === "bin")
      return [{ key, place, words: counted(count(), "part"), to: `/parts?workshop=${place}` }];
    const rule = SENT_FROM[kind];
    if (!rule || part) return [];
    return [{ key, place, words: counted(count(), rule.one), to: `/vehicles/${place}/${rule.station}` }];
  });
}

/** All that would be lost with the account, as "2 runs, 1 photo and something half typed"; empty where nothing would. */
export function lostWords(account: string): string {
  const unsent = unsentOf(account);
  const half = keptOf(account).some(({ kind, part }) => kind === "inspection" || (kind !== "draft" && part));
  // Two tabs may have changed one design.
  const words = [...new Set(unsent.map((one) => one.words)), ...(half ? ["something half typed"] : [])];
  const last = words.pop() ?? "";
  return words.length > 0 ? `${words.join(", ")} and ${last}` : last;
}

/** What waits, looked at again and again: it comes and goes without a word. */
export function useUnsent(account: string): Unsent[] {
  const [unsent, setUnsent] = useState<Unsent[]>([]);
  useEffect(() => {
    const look = () =>
      setUnsent((old) => {
        const now = unsentOf(account);
        return JSON.stringify(now) === JSON.stringify(old) ? old : now;
      });
    // Not at once: what was typed a moment ago is still on its way.
    const timer = window.setInterval(look, LOOK_AGAIN_MS);
    return () => window.clearInterval(timer);
  }, [account]);
  return unsent;
}
