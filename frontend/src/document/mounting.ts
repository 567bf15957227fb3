/** Changing the mounting of a design: the `fit` section of its document. Pure. */
import type { Help } from "../api/client";
import type { Kinds } from "../words/kinds";
import { type DesignDocument, type Typed, at as valueAt, withValue, withValues } from "./document";

export type Place = [Typed, Typed];

export interface MountedShaft {
  shaft: string;
  mount?: "fixed" | "holes" | "slot" | "free";
  at?: Place;
  slot?: { start: Place; end: Place };
  stack?: Stack;
  [key: string]: unknown;
}

export interface StackItem {
  name?: string;
  width: Typed;
  at?: Typed;
  wheel?: string;
  spacer?: boolean;
  bearing?: boolean;
}

export interface Stack {
  between: Typed;
  items?: StackItem[];
}

export interface Mounting {
  plate?: Record<string, unknown>;
  shafts?: MountedShaft[];
  loops?: { stage: string; [key: string]: unknown }[];
  frame?: FrameLine[];
  behind?: PlateBehind[];
  adapters?: Adapter[];
  [key: string]: unknown;
}

export interface FrameLine {
  name?: string;
  start: Place;
  end: Place;
}

/** The plate behind a stage that turns the axis. */
export interface PlateBehind {
  stage: string;
  plate?: Record<string, unknown>;
  frame?: FrameLine[];
}

export interface Adapter {
  name?: string;
  sides: { name?: string; [key: string]: unknown }[];
  plates?: number;
  [key: string]: unknown;
}

/** An adapter to begin with, between a motor and an axle. */
export const FIRST_ADAPTER: Adapter = {
  name: "adapter",
  sides: [
    { name: "motor", bolts: { count: 4, circle: "25 mm", hole: "3.2 mm" }, centring: "13 mm" },
    {
      name: "axle",
      bolts: { count: 3, circle: "44 mm", hole: "4.3 mm", angle: "30 deg" },
      centring: "16 mm",
    },
  ],
  outside: "70 mm",
};

/** What only an adapter of two plates has, as it begins. */
export const SECOND_PLATE = {
  first_plate: "6 mm",
  joint: { count: 3, circle: "56 mm", hole: "4.3 mm", angle: "-30 deg" },
  dowels: { count: 2, circle: "56 mm", hole: "4 mm" },
};

/** An adapter with one plate or two. */
export function withPlates(document: DesignDocument, path: string, plates: number): DesignDocument {
  const keys = Object.entries(SECOND_PLATE).map(([key, start]) => [
    `${path}.${key}`,
    plates === 1 ? undefined : start,
  ]);
  return withValues(document, { ...Object.fromEntries(keys), [`${path}.plates`]: plates });
}

export interface Spot {
  x: number;
  y: number;
}

/** A plate to begin with. */
export const FIRST_PLATE = { hole_pitch: "12 mm", across: 40, up: 12, hole: "5 mm" };
/** Metres by which an arrow key with Shift moves a shaft, and without a plate one alone. */
export const FINE = 1e-4;
const COARSE = 1e-3;
/** Metres that a slot is long to begin with. */
const FIRST_SLOT = 0.02;

export const mountingOf = (document: DesignDocument): Mounting => document.fit ?? {};

/** Where in the list a shaft is, or would be added. */
export function shaftIndex(document: DesignDocument, shaft: string): number {
  const shafts = mountingOf(document).shafts ?? [];
  const index = shafts.findIndex((entry) => entry.shaft === shaft);
  return index < 0 ? shafts.length : index;
}

export const shaftOf = (document: DesignDocument, shaft: string): MountedShaft | undefined =>
  mountingOf(document).shafts?.[shaftIndex(document, shaft)];

/** Where the document speaks of a plate, or would: of the one behind a stage that turns the axis, or of the first. */
export function platePath(document: DesignDocument, behind: string): string {
  if (!behind) return "fit";
  const plates = mountingOf(document).behind ?? [];
  const index = plates.findIndex((entry) => entry.stage === behind);
  return `fit.behind[${index < 0 ? plates.length : index}]`;
}

/** What is said of a plate and the frame around it. */
export const plateOf = (document: DesignDocument, behind: string): Pick<PlateBehind, "plate" | "frame"> =>
  (valueAt(document, platePath(document, behind)) as PlateBehind | undefined) ?? {};

/** The document with something else said of a plate. */
export function withPlate(
  document: DesignDocument,
  behind: string,
  part: Pick<PlateBehind, "plate" | "frame">,
): DesignDocument {
  const old = plateOf(document, behind);
  return withValue(document, platePath(document, behind), {
    ...(behind ? { stage: behind } : {}),
    ...old,
    ...part,
  });
}

/** The document with something else said of one shaft; undefined takes a key away. */
export function withShaft(
  document: DesignDocument,
  shaft: string,
  part: Partial<MountedShaft>,
): DesignDocument {
  const made = merged({ shaft, ...shaftOf(document, shaft), ...part });
  return withValue(document, `fit.shafts[${shaftIndex(document, shaft)}]`, made);
}

/** The same for the loop of a stage. */
export function withLoop(
  document: DesignDocument,
  stage: string,
  part: Record<string, unknown>,
): DesignDocument {
  const loops = mountingOf(document).loops ?? [];
  const index = loops.findIndex((entry) => entry.stage === stage);
  const made = merged({ stage, ...loops[index], ...part });
  return withValue(document, `fit.loops[${index < 0 ? loops.length : index}]`, made);
}

const merged = (entry: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(entry).filter(([, value]) => value !== undefined));

/** A place as it would be typed: millimetres to the thousandth. */
export const typedPlace = ({ x, y }: Spot): Place => [millimetres(x), millimetres(y)];

const millimetres = (metres: number) => `${Number((metres * 1e3).toFixed(3))} mm`;

/** A shaft moved to a place; one of which nothing was said stands on holes from then on. */
export function moved(document: DesignDocument, shaft: string, to: Spot, behind = ""): DesignDocument {
  const mount = shaftOf(document, shaft)?.mount ?? (plateOf(document, behind).plate ? "holes" : "free");
  return withShaft(document, shaft, { mount, at: typedPlace(to) });
}

/** Another way to be mounted, where the shaft stands; a slot begins around that place. */
export function mountedAs(
  document: DesignDocument,
  shaft: string,
  mount: NonNullable<MountedShaft["mount"]>,
  at: Spot,
): DesignDocument {
  if (mount !== "slot") return withShaft(document, shaft, { mount, slot: undefined, at: typedPlace(at) });
  const slot = {
    start: typedPlace({ x: at.x - FIRST_SLOT / 2, y: at.y }),
    end: typedPlace({ x: at.x + FIRST_SLOT / 2, y: at.y }),
  };
  return withShaft(document, shaft, { mount, slot: shaftOf(document, shaft)?.slot ?? slot, at: undefined });
}

/** The nearest hole of a plate, or the place itself where there is none. */
export function snapped(plate: { hole_pitch: number; across: number; up: number } | null, to: Spot): Spot {
  if (!plate) return to;
  const on = (value: number, count: number) =>
    Math.min(count - 1, Math.max(0, Math.round(value / plate.hole_pitch))) * plate.hole_pitch;
  return { x: on(to.x, plate.across), y: on(to.y, plate.up) };
}

const ARROWS: Record<string, Spot> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: 1 },
  ArrowDown: { x: 0, y: -1 },
};

/** Where an arrow key takes a shaft: to the next hole, finely with Shift; null for any other key. */
export function arrowed(
  plate: { hole_pitch: number; across: number; up: number } | null,
  mount: string,
  from: Spot,
  key: string,
  fine: boolean,
): Spot | null {
  const way = ARROWS[key];
  if (!way) return null;
  const holes = plate && mount === "holes" && !fine;
  const step = fine ? FINE : holes ? plate.hole_pitch : COARSE;
  const to = { x: from.x + way.x * step, y: from.y + way.y * step };
  return holes ? snapped(plate, to) : to;
}

/** All shafts put where a placing has them, and the loops' lengths with it. */
export function placed(
  kinds: Kinds,
  document: DesignDocument,
  at: Record<string, number[]>,
  pieces: Record<string, string>,
): DesignDocument {
  let made = document;
  for (const [shaft, place] of Object.entries(at)) {
    const mount = shaftOf(made, shaft)?.mount;
    if (mount !== "slot")
      made = withShaft(made, shaft, { mount: mount ?? "holes", at: typedPlace(spot(place)) });
  }
  for (const [stage, length] of Object.entries(pieces)) made = withLength(kinds, made, stage, length);
  return made;
}

/** What helps taken: wheels of other teeth, an idler, and everything placed with it. */
export function helped(kinds: Kinds, document: DesignDocument, help: Help): DesignDocument {
  const { teeth = {}, way, idler, slot, tolerance = null } = help;
  let made = placed(kinds, withValues(document, teeth), way.at, way.lengths);
  if (tolerance !== null) made = withValue(made, "fit.tolerance", millimetres(tolerance));
  if (slot) made = slotted(made, slot);
  return idler ? withIdler(made, idler) : made;
}

function slotted(document: DesignDocument, { shaft, start, end }: NonNullable<Help["slot"]>): DesignDocument {
  const ends = { start: typedPlace(spot(start)), end: typedPlace(spot(end)) };
  return withShaft(document, shaft, { mount: "slot", slot: ends, at: undefined, eccentric: undefined });
}

const spot = ([x = 0, y = 0]: number[]): Spot => ({ x, y });

function withIdler(document: DesignDocument, idler: NonNullable<Help["idler"]>): DesignDocument {
  const tensioner = {
    at: typedPlace(spot(idler.at)),
    diameter: millimetres(idler.diameter),
    outside: idler.outside,
  };
  return withLoop(document, idler.stage, { tensioner });
}

/** A loop's length as a placing names it: "84 teeth", "74 links", "900 mm". */
function withLength(kinds: Kinds, document: DesignDocument, stage: string, length: string): DesignDocument {
  const key = kinds.of(String(valueAt(document, `${stage}.kind`)))?.loop_key;
  return key
    ? withValue(document, `${stage}.${key}`, Number.parseInt(length, 10))
    : withLoop(document, stage, { length });
}

/** A stack with its gaps filled: items by their place in the present list, new spacers by name and width. */
export function filled(stack: Stack, entries: { item: number | null; name: string; width: string }[]): Stack {
  const items = entries.map(({ item, name, width }) =>
    item === null ? { name, width, spacer: true } : (stack.items?.[item] as StackItem),
  );
  return { ...stack, items };
}
