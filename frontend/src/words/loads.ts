/** Loads in words and marks, as all stations tell them. Pure. */
import type { LoadedPart, LoadState, Standing } from "../api/client";

export const STANDS: Record<LoadState, Standing> = {
  ok: "holds",
  near: "tight",
  over: "misses",
  unknown: "unknown",
};

export const STATE_WORDS: Record<LoadState, string> = {
  ok: "holds",
  near: "near its limit",
  over: "over its limit",
  unknown: "not known",
};

/** How much of a member of the line is used. */
export interface Used {
  state: LoadState;
  use: number | null;
}

const WORST: LoadState[] = ["over", "near", "ok", "unknown"];

/** The worst row of a stage's wheel, or of all of it where a row speaks of no wheel; null of what nothing is checked. */
export function ofMember(parts: LoadedPart[], path: string, member: string): Used | null {
  const rows = parts
    .flatMap((part) => part.rows)
    .filter((row) => row.path === path && row.check !== "shaft_stress");
  const own = rows.filter((row) => row.member && memberName(row.member) === member);
  const matching = own.length > 0 ? own : rows.filter((row) => !row.member || !member);
  for (const state of WORST) {
    const uses = matching.filter((row) => row.state === state).map((row) => row.use ?? 0);
    if (uses.length > 0) return { state, use: state === "unknown" ? null : Math.max(...uses) };
  }
  return null;
}

/** A row says "idlers[0]" where the drawing says "idler 1". */
const memberName = (member: string) =>
  member.replace(/^idlers\[(\d+)\]$/, (_, k: string) => `idler ${Number(k) + 1}`);

export const percent = (use: number): string => `${Math.round(100 * use)} %`;
