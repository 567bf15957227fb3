/**
 * The last answers about designs, so that going back and forth between sizes costs nothing, and what the next keys lead
 * to is known before they are pressed.
 */
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

/** Answers kept; one is some 30 KB. */
const KEPT = 80;
/** Questions asked ahead at once: a key that is held down is followed, and the server has time for others. */
const AHEAD = 2;

export class Answers {
  private known = new Map<string, Live>();
  private pending = new Map<string, Promise<Answered>>();
  private ahead: Asked[] = [];

  /** What was answered to the same question. */
  get(asked: Asked): Live | undefined {
    return this.known.get(keyOf(asked));
  }

  /** The answer; a question that is on its way is not asked twice. */
  ask(asked: Asked): Promise<Answered> {
    const key = keyOf(asked);
    const known = this.known.get(key);
    if (known) return Promise.resolve({ live: known, faults: [], trouble: "", retry: false });
    const pending = this.pending.get(key);
    if (pending) return pending;
    const made = askServer(asked).then((answered) => {
      this.pending.delete(key);
      if (answered.live) this.keep(key, answered.live);
      this.askAhead();
      return answered;
    });
    this.pending.set(key, made);
    return made;
  }

  /** Ask these too, in their order, in place of what was to be asked ahead until now. */
  next(questions: Asked[]): void {
    this.ahead = questions;
    this.askAhead();
  }

  private askAhead(): void {
    while (this.pending.size < AHEAD) {
      const asked = this.ahead.shift();
      if (!asked) return;
      if (!this.get(asked)) void this.ask(asked);
    }
  }

  private keep(key: string, live: Live): void {
    this.known.set(key, live);
    const [oldest] = this.known.keys();
    if (this.known.size > KEPT && oldest !== undefined) this.known.delete(oldest);
  }
}

const keyOf = ({ document, mark, wish }: Asked) => JSON.stringify([document, mark, wish]);

async function askServer({ document, mark, wish }: Asked): Promise<Answered> {
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
