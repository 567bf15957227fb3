/** Files that are sent or fetched in pieces: a connection that fails for a while costs no more than a piece. */
import { isPassing } from "./client";
import { pause } from "./connection";

const TRIES = 6;

/** Told how much is through, from 0 to 1, and asked whether to stop. */
export interface Passage {
  going: (share: number) => void;
  stopped: () => boolean;
}

/**
 * @param numbers of the pieces. move: sends or fetches one of them.
 * @returns false where it was stopped.
 */
export async function inPieces(
  numbers: number[],
  move: (number: number) => Promise<void>,
  { going, stopped }: Passage,
): Promise<boolean> {
  for (const [k, number] of numbers.entries()) {
    if (stopped()) return false;
    going(k / numbers.length);
    await insistently(() => move(number), stopped);
  }
  return !stopped();
}

/** Tries again after what may pass, each time after a longer pause. */
export async function insistently<T>(work: () => Promise<T>, stopped: () => boolean): Promise<T> {
  for (let tries = 0; ; tries++) {
    try {
      return await work();
    } catch (error) {
      if (!isPassing(error) || tries + 1 === TRIES || stopped()) throw error;
      await new Promise((resolve) => window.setTimeout(resolve, pause(tries)));
    }
  }
}

/** Numbers from 0 of the pieces of a file. */
export function numbersOf(size: number, piece: number): number[] {
  return Array.from({ length: Math.ceil(size / piece) }, (_, k) => k);
}

/** A body that is sent as it is. */
export const AS_BYTES = {
  bodySerializer: (body: unknown) => body as Blob,
  headers: { "Content-Type": "application/octet-stream" },
};
