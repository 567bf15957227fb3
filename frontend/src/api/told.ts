/** A value that parts of the screen are told of, wherever it is set. */
import { useSyncExternalStore } from "react";

export interface Told<T> {
  get: () => T;
  set: (next: T) => void;
  use: () => T;
}

export function told<T>(first: T): Told<T> {
  let value = first;
  const watching = new Set<() => void>();
  const watch = (tell: () => void) => {
    watching.add(tell);
    return () => watching.delete(tell);
  };
  const get = () => value;
  return {
    get,
    set: (next) => {
      if (Object.is(next, value)) return;
      value = next;
      for (const tell of watching) tell();
    },
    use: () => useSyncExternalStore(watch, get),
  };
}
