/** Whether the server answers and knows who asks, and who wants to hear when it does again. */
import { told } from "./told";

export type Connection = "fine" | "no answer" | "signed out";

const state = told<Connection>("fine");
const waiting = new Set<() => void>();

export const useConnection = state.use;

/** An answer said that nobody is signed in any more. */
export function lost(): void {
  state.set("signed out");
}

/** A request came to nothing. */
export function unanswered(): void {
  if (state.get() === "fine") state.set("no answer");
}

/** The server has answered, whatever it said. */
export function answered(): void {
  if (state.get() === "no answer") back();
}

/** Somebody has signed in, or the server answers again: what waits tries again at once. */
export function back(): void {
  state.set("fine");
  tryAgain();
}

function tryAgain(): void {
  for (const again of [...waiting]) again();
}

/** Call when the connection is back; returns how to take that back. */
export function whenBack(again: () => void): () => void {
  waiting.add(again);
  return () => waiting.delete(again);
}

window.addEventListener("online", tryAgain);

const FIRST_MS = 1500;
const LONGEST_MS = 30_000;

/** Pauses between tries, each twice as long as the one before. */
export function pause(tries: number): number {
  return Math.min(LONGEST_MS, FIRST_MS * 2 ** tries);
}

/** Whether it makes sense to ask the same again: the server had its hands full, or did not answer. */
export function mayPass(status: number): boolean {
  return status >= 500 || status === 429 || status === 408 || status === 0;
}
