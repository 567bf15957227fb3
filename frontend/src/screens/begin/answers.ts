/** What somebody answers on the way to a first design, as typed. */
import type { Fault } from "../../api/client";
import { isWithin } from "../../ui/fields/faults";

export interface Answers {
  name?: string;
  mass?: string;
  wheel_diameter?: string;
  footing?: string;
  source?: string;
  motor?: { size: string; kv: string };
  engine?: { power: string; speed: string };
  supply?: string;
  pack?: { cells: string; voltage: string; capacity: string };
  /** Bounds by the place of the target, in the order in which they are said. */
  goals?: string[][];
}

export type Put = (part: Partial<Answers>) => void;

type Bounds = Record<string, string | string[]>;

/** What is sent of them: nothing of what was left empty. */
export function answered(answers: Answers, bounds: string[] = []): Record<string, unknown> {
  const { goals, ...rest } = answers;
  const kept = Object.entries(rest).filter(([, value]) => value !== undefined && value !== "");
  const said = goals?.map((values, place): Bounds => bound(bounds[place] ?? "at_least", values));
  return { ...Object.fromEntries(kept), ...(said && { goals: said }) };
}

function bound(kind: string, values: string[]): Bounds {
  return { [kind]: kind === "between" ? values : (values[0] ?? "") };
}

/** The fault at the first of these paths that has one. */
export function faultOf(faults: Fault[], ...paths: string[]): Fault | undefined {
  return faults.find((fault) => paths.some((path) => isWithin(fault, path)));
}
