/** A value that follows another one frame later: for what is heavy to paint and must not hold up what is light. */
import { startTransition, useEffect, useState } from "react";

/** Do something once what stands now is painted; returns how to call it off. */
export function afterPaint(work: () => void): () => void {
  let wait = 0;
  const frame = requestAnimationFrame(() => {
    wait = window.setTimeout(work);
  });
  return () => {
    cancelAnimationFrame(frame);
    window.clearTimeout(wait);
  };
}

/** While `held` it stays as it is. */
export function useAfterPaint<T>(value: T, held: boolean): T {
  const [shown, setShown] = useState(value);
  useEffect(() => {
    if (held) return;
    return afterPaint(() => startTransition(() => setShown(value)));
  }, [value, held]);
  return shown;
}

/** False until what is around has been painted once: for what is heavy at the start and can follow. */
export function usePainted(): boolean {
  const [mounted, setMounted] = useState(false);
  useEffect(() => setMounted(true), []);
  return useAfterPaint(mounted, !mounted);
}
