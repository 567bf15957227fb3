/** A value that follows another one frame later: for what is heavy to paint and must not hold up what is light. */
import { useEffect, useState } from "react";

/** While `held` it stays as it is. */
export function useAfterPaint<T>(value: T, held: boolean): T {
  const [shown, setShown] = useState(value);
  useEffect(() => {
    if (held) return;
    let wait = 0;
    const frame = requestAnimationFrame(() => {
      wait = window.setTimeout(() => setShown(value));
    });
    return () => {
      cancelAnimationFrame(frame);
      window.clearTimeout(wait);
    };
  }, [value, held]);
  return shown;
}

/** False until what is around has been painted once: for what is heavy at the start and can follow. */
export function usePainted(): boolean {
  const [mounted, setMounted] = useState(false);
  useEffect(() => setMounted(true), []);
  return useAfterPaint(mounted, !mounted);
}
