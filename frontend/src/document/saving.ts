/** One attempt to save a design, and what came of it. */
import { api, type Conflict, type Refusal } from "../api/client";
import { mayPass } from "../api/connection";
import type { DesignDocument } from "./document";
import type { Base } from "./seen";

/** What a browser sends of a page that is going. */
const MOST_PARTING = 60_000;

export type Attempt =
  | { kind: "saved"; base: Base }
  | { kind: "theirs"; conflict: Conflict }
  | { kind: "refused"; why: string; again: boolean };

/**
 * @param from the revision that the document was changed from.
 * @param parting whether the page is going, and nothing waits for what comes.
 */
export async function attempt(
  vehicle: string,
  from: Base,
  document: DesignDocument,
  parting: boolean,
): Promise<Attempt> {
  const body = { base: from.number, document: document as unknown as Record<string, unknown> };
  try {
    const { data, error, response } = await api.POST("/api/vehicles/{vehicle}/revisions/", {
      params: { path: { vehicle } },
      body,
      keepalive: parting && JSON.stringify(body).length < MOST_PARTING,
    });
    if (data) return { kind: "saved", base: { number: data.number, document, saved_at: data.saved_at } };
    if (response.status === 409) return { kind: "theirs", conflict: error as Conflict };
    const why = reason(error as Refusal | undefined, response.status);
    return { kind: "refused", why, again: mayPass(response.status) };
  } catch {
    return { kind: "refused", why: "no connection; kept on this device", again: true };
  }
}

function reason(refusal: Refusal | undefined, status: number): string {
  const count = (refusal?.faults?.length ?? 0) + (refusal?.more ?? 0);
  if (count > 0)
    return `${count === 1 ? "one value" : `${count} values`} cannot be read; figures are those before`;
  if (status === 401) return "you are signed out; kept on this device";
  if (status === 403 || status === 404)
    return "it is not yours to change any more; Export saves it as a file";
  return refusal?.detail ?? `the server answered with ${status}; it is tried again`;
}
