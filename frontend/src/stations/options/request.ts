/** What is to be searched, as chosen on the screen, and the request that the core reads. Pure. */
import type { DesignDocument } from "../../document/document";
import { parseCounts } from "../../words/ranges";

/** A stage of a layout as the format has it. */
export interface StageChoice {
  /** Of a stage, or "fixed" for one as it stands. */
  kind: string;
  ratio?: [number, number];
  driver?: string[];
  driven?: string[];
  stage?: Record<string, unknown>;
}

/** Which parts may stand in for what the design has; null leaves the design its own. */
export type Heads = Record<"sources" | "supplies" | "wheels", string[] | null>;

export interface Wishes {
  layouts: StageChoice[][];
  heads: Heads;
  /** Numbers of motors a unit, as typed. */
  counts: string;
  ownedOnly: boolean;
  price: string;
  toBuy: string;
  ratioFrom: string;
  ratioTo: string;
  masses: boolean;
  /** Only what goes where the shafts stand or can be set. */
  standing: boolean;
  /** Only what goes on the plate, on whichever of its holes. */
  onPlate: boolean;
  /** Only belts and chains of which a length is at hand. */
  lengthsAtHand: boolean;
}

export const NO_WISHES: Wishes = {
  layouts: [],
  heads: { sources: null, supplies: null, wheels: null },
  counts: "",
  ownedOnly: false,
  price: "",
  toBuy: "",
  ratioFrom: "",
  ratioTo: "",
  masses: false,
  standing: false,
  onPlate: false,
  lengthsAtHand: false,
};

const KEPT = 200;

/** The whole request but for the parts, which come from the bin. What cannot be a number goes as typed, to be refused. */
export function requestOf(document: DesignDocument, wishes: Wishes): Record<string, unknown> {
  const counts = parseCounts(wishes.counts);
  const heads = Object.fromEntries(Object.entries(wishes.heads).filter(([, ids]) => ids !== null));
  return {
    format: "ydrometer-search",
    version: 1,
    design: document,
    layouts: wishes.layouts.map((stages) => ({
      stages,
      ...heads,
      ...(wishes.counts.trim() ? { count: counts.length > 0 ? counts : [wishes.counts] } : {}),
    })),
    limits: {
      owned_only: wishes.ownedOnly,
      ...given("price_at_most", wishes.price),
      ...given("parts_to_buy_at_most", wishes.toBuy),
      ...(wishes.ratioFrom.trim() || wishes.ratioTo.trim()
        ? { overall_ratio: [number(wishes.ratioFrom || "0"), number(wishes.ratioTo || "1000000")] }
        : {}),
    },
    ...(wishes.standing || wishes.onPlate || wishes.lengthsAtHand
      ? {
          requires: {
            standing: wishes.standing,
            plate: wishes.onPlate,
            lengths_at_hand: wishes.lengthsAtHand,
          },
        }
      : {}),
    keep: KEPT,
    add_part_masses: wishes.masses,
  };
}

function given(key: string, text: string): Record<string, unknown> {
  return text.trim() ? { [key]: number(text) } : {};
}

function number(text: string): number | string {
  const plain = text.trim().replace(",", ".");
  return plain !== "" && Number.isFinite(Number(plain)) ? Number(plain) : text;
}

export function sameLayout(one: StageChoice[], other: StageChoice[]): boolean {
  return JSON.stringify(one) === JSON.stringify(other);
}

/** A layout in or out of the choice. */
export function toggled(layouts: StageChoice[][], layout: StageChoice[]): StageChoice[][] {
  const left = layouts.filter((entry) => !sameLayout(entry, layout));
  return left.length < layouts.length ? left : [...layouts, layout];
}

const key = (vehicle: string) => `ydrometer-wishes-${vehicle}`;

export function keepWishes(vehicle: string, wishes: Wishes): void {
  try {
    localStorage.setItem(key(vehicle), JSON.stringify(wishes));
  } catch {
    // Without a store the choices are made anew next time.
  }
}

export function recallWishes(vehicle: string): Wishes | null {
  try {
    const text = localStorage.getItem(key(vehicle));
    return text === null ? null : { ...NO_WISHES, ...(JSON.parse(text) as Partial<Wishes>) };
  } catch {
    return null;
  }
}
