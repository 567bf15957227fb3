/** A value that follows another one frame later: for what is heavy to paint and must not hold up what is light. */
import { startTransition, useEffect, useRef, useState } from "react";

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

/** @param apart how long after a change the next one comes at the soonest, ms; infinite: none comes. */
export function useAfterPaint<T>(value: T, apart = 0): T {
  const [shown, setShown] = useState(value);
  const last = useRef(0);
  useEffect(() => {
    if (apart === Number.POSITIVE_INFINITY) return;
    let calledOff = () => {};
    const show = () => {
      last.current = performance.now();
      startTransition(() => setShown(value));
    };
    const wait = window.setTimeout(
      () => {
        calledOff = afterPaint(show);
      },
      Math.max(0, last.current + apart - performance.now()),
    );
    return () => {
      window.clearTimeout(wait);
      calledOff();
    };
  }, [value, apart]);
  return shown;
}

/** False until what is around has been painted once: for what is heavy at the start and can follow. */
export function usePainted(): boolean {
  const [mounted, setMounted] = useState(false);
  useEffect(() => setMounted(true), []);
  return useAfterPaint(mounted);
}
