/** What this page has seen last of each vehicle: it opens again, with its figures, where the server is out of reach. */
import { answer, api, isPassing, type Live } from "../api/client";
import { type DesignDocument, differences } from "./document";

/** A revision that changes are made from. */
export interface Base {
  number: number;
  document: DesignDocument;
  saved_at: string;
}

interface Seen {
  workshop: string;
  role: string;
  scratch: boolean;
  stored: Base;
}

const vehicles = new Map<string, Seen>();
const figures = new Map<string, { document: DesignDocument; live: Live }>();

/** @throws where the server refuses it, or where it does not answer and the vehicle was never seen. */
export async function vehicleNow(vehicle: string): Promise<Seen> {
  try {
    const reply = await answer(api.GET("/api/vehicles/{vehicle}/", { params: { path: { vehicle } } }));
    const { workshop, role, scratch, revision } = reply;
    const { number, saved_at } = revision;
    const document = revision.document as unknown as DesignDocument;
    const seen = { workshop, role, scratch, stored: { number, document, saved_at } };
    vehicles.set(vehicle, seen);
    return seen;
  } catch (error) {
    const before = vehicles.get(vehicle);
    if (!before || !isPassing(error)) throw error;
    return before;
  }
}

/** A newer revision of a vehicle that is open. */
export function sawRevision(vehicle: string, stored: Base): void {
  const before = vehicles.get(vehicle);
  if (before) vehicles.set(vehicle, { ...before, stored });
}

export function sawFigures(vehicle: string, document: DesignDocument, live: Live): void {
  figures.set(vehicle, { document, live });
}

/** The figures of a document that is as it was when they were last seen. */
export function figuresSeen(vehicle: string, document: DesignDocument): Live | null {
  const seen = figures.get(vehicle);
  return seen && differences(seen.document, document).length === 0 ? seen.live : null;
}
