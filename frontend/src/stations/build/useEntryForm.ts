/** What is typed at a step; it stays on the device while the step is open, whatever happens to the page. */
import { useState } from "react";
import type { BuildStep, StepEntry } from "../../api/client";
import { usePlace } from "../../document/context";
import { keptKey, readKept, writeKept } from "../../ui/kept";
import type { More } from "./useTicks";

interface Typed {
  value: string;
  minutes: string;
  note: string;
}

export type EntryForm = ReturnType<typeof useEntryForm>;

/** @param back what was said of the step and not taken: it is not lost with the tick. */
export function useEntryForm(step: BuildStep, back?: StepEntry) {
  const { account, vehicle } = usePlace();
  const place = keptKey("build", account, vehicle, step.id);
  const stored: Typed = {
    value: step.value,
    minutes: step.took === null ? "" : String(step.took),
    note: step.note,
  };
  const [typed, setTyped] = useState<Typed>(
    () => readKept<Typed | null>(place, null) ?? (back ? typedIn(back) : stored),
  );
  const amount = typed.minutes.trim() === "" ? null : Number(typed.minutes.replace(",", "."));
  const wrong = amount !== null && !(amount > 0);
  return {
    ...typed,
    wrong,
    changed: JSON.stringify(typed) !== JSON.stringify(stored),
    put: (part: Partial<Typed>) => {
      const next = { ...typed, ...part };
      setTyped(next);
      writeKept(place, next);
    },
    /** What goes along with a tick; it is no longer kept here. */
    more: (): More => {
      writeKept(place, null);
      return { value: typed.value.trim(), note: typed.note.trim(), minutes: wrong ? null : amount };
    },
  };
}

const typedIn = ({ value = "", minutes, note = "" }: StepEntry): Typed => ({
  value,
  minutes: minutes ? String(minutes) : "",
  note,
});
