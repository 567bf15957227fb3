/** Units and digits: how SI values are shown. The factors come from the core. */
import { createContext, useContext } from "react";
import type { Vocabulary } from "../../api/client";
import { type Kinds, makeKinds } from "../../words/kinds";

export type System = "metric" | "inch";
type Entry = Vocabulary["dimensions"][number];

export interface Units {
  system: System;
  /** Whether ratios are read as motor turns per wheel turn. */
  reducing: boolean;
  entry: (dimension: string) => Entry;
  measures: Vocabulary["measures"];
  aids: Vocabulary["aids"];
  kinds: Kinds;
  limits: Vocabulary["limits"];
  /** What is typed of how much sources, controllers and supplies stand. */
  ratings: Vocabulary["ratings"];
  /** Kinds of test runs. */
  runs: Vocabulary["runs"];
  /** Of shafts and bores. */
  shapes: string[];
  /** Fields that have typical values, any place in a list left open. */
  typical: string[];
}

const UnitsContext = createContext<Units | null>(null);
export const UnitsProvider = UnitsContext.Provider;

export function useUnits(): Units {
  const units = useContext(UnitsContext);
  if (units === null) throw new Error("useUnits is wanted inside UnitsProvider");
  return units;
}

/** The kinds of stages that there are. */
export const useKinds = (): Kinds => useUnits().kinds;

export function makeUnits(vocabulary: Vocabulary, system: System, reducing: boolean): Units {
  const entries = new Map(vocabulary.dimensions.map((entry) => [entry.name, entry]));
  return {
    system,
    reducing,
    measures: vocabulary.measures,
    ratings: vocabulary.ratings,
    runs: vocabulary.runs,
    aids: vocabulary.aids,
    kinds: makeKinds(vocabulary.stages),
    limits: vocabulary.limits,
    shapes: vocabulary.shapes,
    typical: vocabulary.typical,
    entry: (dimension) => {
      const found = entries.get(dimension);
      if (!found) throw new Error(`no dimension ${dimension}`);
      return found;
    },
  };
}

/** A number with about three significant digits and no exponent in the usual range. */
export function digits(value: number): string {
  if (value === 0) return "0";
  const size = Math.abs(value);
  if (size >= 100_000 || size < 0.000_1) return value.toExponential(2).replace("-", "−").replace("e+", "e");
  const places = Math.max(0, 2 - Math.floor(Math.log10(size) + 1e-9));
  const text = value.toFixed(Math.min(places, 7));
  return group(text.replace("-", "−"));
}

function group(text: string): string {
  const [whole = "", rest] = text.split(".");
  const spaced = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, "\u202f") : whole;
  return rest ? `${spaced}.${rest}` : spaced;
}

export interface Shown {
  number: string;
  unit: string;
}

export function show(units: Units, dimension: string, si: number | null | undefined): Shown {
  if (si === null || si === undefined) return { number: "–", unit: "" };
  const entry = units.entry(dimension)[units.system];
  return { number: digits((si - entry.offset) / entry.factor), unit: entry.symbol };
}

/** Relative difference below which two computed values are the same. */
const SAME = 1e-5;

/** The difference to the mark, signed; empty where there is none to show. */
export function change(
  units: Units,
  dimension: string,
  si: number | null,
  mark: number | null | undefined,
): string {
  if (si === null || mark === null || mark === undefined) return "";
  const entry = units.entry(dimension)[units.system];
  const shown = (si - mark) / entry.factor;
  if (Math.abs(si - mark) <= SAME * Math.max(Math.abs(si), Math.abs(mark))) return "±0";
  return shown > 0 ? `+${digits(shown)}` : digits(shown);
}

/** "7.47 : 1", or the other way round for those who count wheel turns per motor turn. */
export function ratioText(units: Units, ratio: number): string {
  return `${digits(units.reducing ? ratio : 1 / ratio)} : 1`;
}

const BARE = /^\s*[-+]?(\d+([.,]\d*)?|[.,]\d+|\d+\s*\/\s*\d+|\d+\s+\d+\/\d+)\s*$/;

/** What was typed, with the unit on display where only a number was given. */
export function completed(units: Units, dimension: string, text: string): string {
  const plain = text.trim();
  const { typed, symbol } = units.entry(dimension)[units.system];
  return BARE.test(plain) && symbol ? `${plain} ${typed}` : plain;
}
