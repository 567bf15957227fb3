/** Changes to what others may change too. */
import { RefusedError } from "./client";

const CHANGED = 409;

/**
 * Make a change upon what is known; where somebody else has changed that meanwhile, once more upon what they made of it.
 *
 * @param still whether the change makes sense there.
 */
export async function upon<T>(
  known: T,
  newest: () => Promise<T>,
  change: (of: T) => Promise<void>,
  still: (theirs: T) => boolean = () => true,
): Promise<void> {
  try {
    await change(known);
  } catch (error) {
    if (!(error instanceof RefusedError && error.status === CHANGED)) throw error;
    const theirs = await newest();
    if (!still(theirs)) throw error;
    await change(theirs);
  }
}
