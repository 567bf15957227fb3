/** The blocks of a day: how wide each is drawn, and what stretching one makes of it. Pure. */
import type { Loads } from "../../api/client";
import { at, type DesignDocument, withValue } from "../../document/document";

export type Phase = Loads["day"][number];

/** Pixels of a block of no time, and what each doubling adds: so seconds and minutes can both be taken hold of. */
const LEAST = 48;
const DOUBLING = 25;
const SHORTEST = 1;
const LONGEST = 20 * 3600;
const MINUTE = 60;
/** From here on a time is told in minutes. */
const MINUTES_FROM = 120;

export const widthOf = (seconds: number): number => LEAST + DOUBLING * Math.log2(1 + seconds / SHORTEST);

/** What a block lasts whose right edge is pulled by so many pixels. */
export function stretched(seconds: number, by: number): number {
  const wanted = SHORTEST * (2 ** ((widthOf(seconds) + by - LEAST) / DOUBLING) - 1);
  return rounded(Math.min(LONGEST, Math.max(SHORTEST, wanted)));
}

/** To two digits; whole minutes where it is some. */
function rounded(seconds: number): number {
  if (seconds >= MINUTES_FROM) return MINUTE * Number((seconds / MINUTE).toPrecision(2));
  return Number(seconds.toPrecision(2));
}

export const typedTime = (seconds: number): string =>
  seconds >= MINUTES_FROM && seconds % MINUTE === 0 ? `${seconds / MINUTE} min` : `${seconds} s`;

/** A design whose day is described: the usual one taken over where it was assumed. */
export function described(document: DesignDocument, loads: Loads): DesignDocument {
  if (at(document, "loads.day") !== undefined) return document;
  const day = withValue(document, "loads.day", loads.day.map(typed));
  return withValue(day, "loads.heats", at(document, "loads.heats") ?? loads.heats);
}

function typed(phase: Phase): Record<string, unknown> {
  if (phase.do === "runs") return { do: "runs", count: phase.count, every: typedTime(phase.seconds) };
  return { do: phase.do, for: typedTime(phase.seconds) };
}

/** What stretching a block changes: of runs how many there are, of anything else how long it lasts. */
export function stretchedTo(k: number, phase: Phase, lasts: number): [string, unknown] {
  if (phase.do !== "runs") return [`loads.day[${k}].for`, typedTime(lasts)];
  return [`loads.day[${k}].count`, Math.min(1000, Math.max(1, Math.round(lasts / phase.seconds)))];
}
