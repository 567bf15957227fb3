import type { BuildShown, BuildStep } from "../../api/client";

/** When nothing holds a step back any more, in ms, where it only waits; null where it need not, or other things hold it. */
export function waitsUntil({ held }: BuildStep): number | null {
  if (held.length === 0 || held.some((reason) => !reason.until)) return null;
  return Math.max(...held.map((reason) => Date.parse(reason.until ?? "")));
}

/** Minutes in words: "20 min", "1 h 30". */
export function minutes(count: number): string {
  const whole = Math.max(1, Math.round(count));
  if (whole < 90) return `${whole} min`;
  const rest = whole % 60;
  return rest ? `${Math.floor(whole / 60)} h ${rest}` : `${whole / 60} h`;
}

/** The step that is shown: the chosen one, else what can be done next, else what is left and is held back. */
export const upNext = (shown: BuildShown, chosen: string): BuildStep | undefined =>
  shown.steps.find((step) => step.id === (chosen || shown.next[0])) ??
  shown.steps.find((step) => !step.done || step.once_more);
