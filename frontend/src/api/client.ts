/** The server, through a client whose types are generated from its schema. */

import type { components, paths } from "@generated/schema";
import createClient, { type Middleware } from "openapi-fetch";
import { answered, lost, mayPass, unanswered } from "./connection";
import { sawVersion } from "./version";

type Schemas = components["schemas"];
export type Live = Schemas["Live"];
export type View = Schemas["View"];
export type Gauge = Schemas["Gauge"];
export type Standing = Gauge["standing"];
export type LineDrawing = Schemas["LineDrawing"];
export type Row = LineDrawing["rows"][number];
export type Wheel = Row["wheels"][number];
export type Loop = Row["loops"][number];
export type Box = Row["boxes"][number];
export type Shaft = Row["shafts"][number];
export type Source = Row["sources"][number];
export type Rotation = Schemas["Rotation"];
export type Flow = Schemas["Flow"];
export type Sweep = Schemas["Sweep"];
export type Uncertainties = Schemas["Uncertainties"];
export type TypicalValue = Schemas["TypicalValue"];
export type Starts = Schemas["StartsShown"];
export type Start = Starts["starts"][number];
export type Working = Schemas["Working"];
export type Aid = Schemas["Vocabulary"]["aids"][number];
export type Finding = Schemas["Finding"];
export type Fault = Schemas["Fault"];
export type Vocabulary = Schemas["Vocabulary"];
export type Grid = Schemas["Grid"];
export type DutyLimit = Schemas["DutyLimit"];
export type Comparison = Schemas["Comparison"];
export type PartList = Schemas["PartList"];
export type PartConflict = Schemas["PartConflict"];
export type SearchAnswer = Schemas["SearchAnswer"];
export type Options = NonNullable<SearchAnswer["options"]>;
export type OptionMeasure = Options["measures"][number];
export type Picture = Schemas["Survey"]["pictures"][number];
export type Unknown = Schemas["Survey"]["unknowns"][number];
export type Inverse = Schemas["Inverse"];
export type Mounted = Schemas["Mounted"];
export type Loads = Schemas["LoadsShown"];
export type LoadedPart = Loads["parts"][number];
export type LoadRow = LoadedPart["rows"][number];
export type LoadDay = Schemas["DayShown"];
export type LoadHelp = Schemas["HelpShown"];
export type LoadState = Loads["state"];
/** What stands on one plate. */
export type OnPlate = Mounted["plates"][number];
export type PlanDrawing = OnPlate["plan"];
export type PlanShaft = PlanDrawing["shafts"][number];
export type Clash = OnPlate["clashes"][number];
export type StageSettings = OnPlate["settings"][number];
export type Section = OnPlate["sections"][number];
export type MadeAdapter = Mounted["adapters"][number];
export type Template = Schemas["Template"];
export type Ways = Schemas["Ways"];
export type Help = Ways["helps"][number];
export type Learnt = Schemas["Learnt"];
export type Listened = Schemas["Listened"];
export type RigState = Schemas["Rig"];
export type KeptPlan = Schemas["KeptPlan"];
export type LogFile = Schemas["LogFile"];
export type LoggedRun = Schemas["Run"];
export type LogPage = Schemas["LogPage"];
export type PartsAnswer = Schemas["PartsAnswer"];
export type PartsShown = Schemas["PartsShown"];
export type PartLine = PartsShown["lines"][number];
export type PurchaseState = PartLine["state"];
export type OrderList = Schemas["OrderList"];
export type BuildAnswer = Schemas["BuildAnswer"];
export type BuildShown = Schemas["BuildShown"];
export type BuildStep = BuildShown["steps"][number];
export type Loose = BuildShown["loose"][number];
export type Days = NonNullable<BuildShown["plan"]>;
export type Care = BuildAnswer["cares"][number];
export type HeldBack = Schemas["HeldBackShown"];
export type StepEntry = Schemas["EntryRequest"];
export type RunKind = Vocabulary["runs"][number];
export type Fit = Schemas["Fits"]["fits"][number];
/** Which exercise: the same four always give the same one. */
export type Which = Schemas["WhichRequest"];
export type Exercise = Schemas["ExerciseShown"];
export type Ask = Exercise["ask"];
export type Judgement = Schemas["Judgement"];
export type Solved = Schemas["Solved"];
export type Practice = Schemas["PracticeShown"];
export type Idea = Practice["ideas"][number];
export type Went = Schemas["WentEnum"];
export type ExerciseSet = Schemas["SetShown"];
export type Pupils = Schemas["ClassShown"];
export type Race = Schemas["BoardShown"];
export type RaceEntry = Race["entries"][number];
export type HistoryEntry = Schemas["HistoryEntry"];
/** Somebody else who is at the vehicle now. */
export type Other = Schemas["Other"];
export type Revision = Schemas["Revision"];
export type Refusal = Schemas["Refusal"];
export type Conflict = Schemas["Conflict"];
export type VehicleCard = Schemas["VehicleCard"];
export type ArchiveRow = Schemas["Archive"];
export type Member = Schemas["Member"];
export type Role = Schemas["RoleEnum"];

export class RefusedError extends Error {
  constructor(
    readonly refusal: Refusal,
    readonly status: number,
  ) {
    super(refusal.detail);
  }
}

/** Whether the same may be answered otherwise before long: there was no answer, or the server was busy. */
export function isPassing(error: unknown): boolean {
  return !(error instanceof RefusedError) || mayPass(error.status);
}

/** Whether the answer would be the same another time: not where one was signed out meanwhile either. */
export function isRefusal(error: unknown): error is RefusedError {
  return error instanceof RefusedError && error.status !== SIGNED_OUT && !isPassing(error);
}

const SIGNED_OUT = 401;
/** What a host says on its way to a server that is down. */
const NOBODY_THERE = new Set([502, 504]);
const NO_CONNECTION = "There is no connection: try again.";

/** What was wrong, each fault with its place and what would be right. */
export function refusalText({ detail, faults }: Refusal): string {
  const told = faults?.map(({ path, problem, remedy }) => {
    const words = remedy ? `${problem}, ${remedy}` : problem;
    return path ? `${path}: ${words}` : words;
  });
  return told?.join("; ") || detail;
}

/** Why something failed, in words. */
export function troubleText(error: unknown): string {
  if (error instanceof RefusedError) return refusalText(error.refusal);
  return error instanceof Error ? error.message : String(error);
}

function cookie(name: string): string {
  const match = document.cookie.split("; ").find((entry) => entry.startsWith(`${name}=`));
  return match ? decodeURIComponent(match.slice(name.length + 1)) : "";
}

const session: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", cookie("csrftoken"));
    return request;
  },
  onResponse({ response }) {
    sawVersion(response.headers.get("Page-Version"));
    if (response.status === SIGNED_OUT) lost();
    else if (NOBODY_THERE.has(response.status)) unanswered();
    else answered();
  },
  onError({ error }) {
    // Everything else was taken back by the page itself.
    if (!(error instanceof TypeError)) return;
    unanswered();
    // The browser's own words for it, "Failed to fetch", help nobody.
    return new Error(NO_CONNECTION);
  },
};

export const api = createClient<paths>({ baseUrl: "/" });
api.use(session);

/** The data of an answer, or its refusal thrown with the words the server chose. */
export async function answer<T>(
  asked: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const { data, error, response } = await asked;
  if (response.ok) return data as T;
  const refusal = (error as Refusal | undefined)?.detail
    ? (error as Refusal)
    : { detail: `The server answered with ${response.status}. What you typed is kept; try again.` };
  throw new RefusedError(refusal, response.status);
}
