/** Runs in words. Pure. */
import type { Learnt, LoggedRun, Standing } from "../../api/client";
import { show, type Units } from "../../ui/fields/units";
import { offText } from "../../words/runs";

export type Judged = Learnt["runs"][number];

const EXPECTED = 2;

/** How a run stands against what is known now, in its own doubt. */
export function standing(judged: Judged | undefined): Standing {
  if (!judged || judged.z === null) return "unknown";
  if (judged.odd) return "misses";
  return Math.abs(judged.z) <= EXPECTED ? "holds" : "tight";
}

export function valueText(units: Units, dimension: string, si: number | null): string {
  const shown = show(units, dimension, si);
  return shown.unit ? `${shown.number} ${shown.unit}` : shown.number;
}

/** What is worth saying first: which gearing is best, else how good the prediction is. */
export function headline(learnt: Learnt | undefined, runs: LoggedRun[]): string {
  const last = runs[0];
  if (!last) return "No runs yet";
  if (learnt?.sentence) return `${learnt.sentence}.`;
  return last.off === null ? `${last.words}: logged.` : `${last.words}: off by ${offText(last.off)}.`;
}
