/** A design with what is looked at of it, as a question to the server. */
import { api, type Fault, type Live, type Refusal } from "../api/client";
import { mayPass } from "../api/connection";
import type { DesignDocument } from "./document";
import type { Selected } from "./selected";

/** What of the design is looked at, see the core's `Wish`. */
export interface Wish {
  selected: Selected | null;
  picked?: number;
  longest?: number;
  told?: number;
}

export interface Asked {
  document: DesignDocument;
  mark: DesignDocument | null;
  wish: Wish;
}

export interface Answered {
  live: Live | null;
  faults: Fault[];
  trouble: string;
  /** Whether the same question may be answered later. */
  retry: boolean;
}

export async function askLive({ document, mark, wish }: Asked): Promise<Answered> {
  const none = { live: null, faults: [], retry: false };
  try {
    const { data, error, response } = await api.POST("/api/live/", {
      body: {
        document: document as unknown as Record<string, unknown>,
        mark: mark as unknown as Record<string, unknown> | null,
        ...wish,
      },
    });
    if (data) return { ...none, live: data, trouble: "" };
    const refusal = error as Refusal | undefined;
    if (refusal?.faults) return { ...none, faults: refusal.faults, trouble: "" };
    if (response.status === 401)
      return { ...none, trouble: "You are signed out: the figures are not up to date." };
    const trouble = refusal?.detail ?? `The server answered with ${response.status}; it is asked again.`;
    return { ...none, trouble, retry: mayPass(response.status) };
  } catch {
    const trouble = "No connection to the server: the figures are not up to date; it is asked again.";
    return { ...none, trouble, retry: true };
  }
}
