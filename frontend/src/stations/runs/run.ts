/** A run as it is typed: what the core will read. Pure. */
import type { LoggedRun, RunKind } from "../../api/client";
import type { DesignDocument } from "../../document/document";

/** A run as in a runs file, but for its design. */
export type RunDocument = Record<string, unknown> & { kind: string; readings: unknown[] };

/** What stands in the form. */
export interface Entry {
  kind: string;
  /** What exactly is measured, and how it was made, as typed. */
  said: Record<string, unknown>;
  readings: string[];
  note: string;
  /** Key of a gearing that was run before; null for the design as it is now. */
  tried: number | null;
  /** The step of the plan that it is. */
  step?: Step | null;
}

/** A step of the plan: its key, what its gearing is called, and the design with that. */
export interface Step {
  key: string;
  gearing: string;
  design: DesignDocument;
}

export const documentOf = (run: LoggedRun) => run.document as unknown as RunDocument;

/** The form for the next run: as the last one of its kind was made, with nothing read yet. */
export function nextEntry(
  kinds: RunKind[],
  kind: string,
  runs: LoggedRun[],
  design: DesignDocument,
  tried: number | null = null,
): Entry {
  const last = runs[0] && documentOf(runs[0]);
  const alike = runs.map(documentOf).find((run) => run.kind === kind);
  const match = kinds.find((entry) => entry.kind === kind);
  const said: Record<string, unknown> = {};
  for (const field of match?.fields ?? [])
    said[field.key] = alike?.[field.key] ?? design.run?.[field.key] ?? field.choices[0];
  for (const key of [...(match?.conditions ?? []).map((field) => field.key), "supply"])
    said[key] = last?.[key];
  return { kind, said, readings: [""], note: "", tried };
}

/** Whether more stands in the form than it would show by itself. */
export function isTouched(entry: Entry, fresh: Entry): boolean {
  const bare = (one: Entry) => JSON.stringify({ ...one, step: one.step ?? undefined });
  return bare(entry) !== bare(fresh);
}

/** The run behind what was typed. */
export function asDocument(entry: Entry): RunDocument {
  const said = Object.fromEntries(Object.entries(entry.said).filter(([, value]) => value !== undefined));
  const readings = entry.readings.filter((reading) => reading.trim() !== "");
  return { kind: entry.kind, ...said, readings, ...(entry.note.trim() ? { note: entry.note.trim() } : {}) };
}

/** A run taken back into the form. */
export function asEntry(document: RunDocument, tried: number | null): Entry {
  const { kind, readings, note, ...said } = document;
  return {
    kind,
    said,
    readings: [...readings.map(String), ""],
    note: typeof note === "string" ? note : "",
    tried,
  };
}

interface LeftOut {
  reading: number;
  why: string;
}

export const leftOut = (document: RunDocument): LeftOut[] =>
  (document.left_out as LeftOut[] | undefined) ?? [];

/** A run with one reading left out for a reason, or counted again without one. */
export function withLeftOut(document: RunDocument, reading: number, why: string | null): RunDocument {
  const others = leftOut(document).filter((entry) => entry.reading !== reading);
  const next = why === null ? others : [...others, { reading, why }].sort((a, b) => a.reading - b.reading);
  const { left_out: _, ...rest } = document;
  return (next.length ? { ...rest, left_out: next } : rest) as RunDocument;
}
