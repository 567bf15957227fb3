/** What waits on this device for the server, in words and with the way to where it is sent from. */
import { useEffect, useState } from "react";
import { counted } from "../words/counted";
import type { StationKey } from "../words/stations";
import { type KeptKind, keptOf, readList } from "./kept";

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

const at = (station: StationKey) => (vehicle: string) => `/vehicles/${vehicle}/${station}`;

/** What one of a kind is called, and where it is sent from. */
const SENT_FROM: Partial<Record<KeptKind, { one: string; to: (place: string) => string }>> = {
  bin: { one: "part", to: (workshop) => `/parts?workshop=${workshop}` },
  build: { one: "tick", to: at("build") },
  photos: { one: "photo", to: at("build") },
  parts: { one: "parts-list tick", to: at("parts") },
  plan: { one: "planned run", to: at("runs") },
  runs: { one: "run", to: at("runs") },
};

/** What is ready to be sent; what is still being typed is none of it. */
export function unsentOf(account: string): Unsent[] {
  return keptOf(account).flatMap(({ key, kind, place, part }): Unsent[] => {
    if (kind === "draft") return [{ key, place, words: "design changes", to: at("brief")(place) }];
    const rule = SENT_FROM[kind];
    const count = rule && !part ? readList(key).length : 0;
    return rule && count > 0 ? [{ key, place, words: counted(count, rule.one), to: rule.to(place) }] : [];
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
