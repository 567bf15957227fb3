/** Small things kept on the device until the server has them. */
import { useCallback, useState } from "react";

export function readKept<T>(key: string, otherwise: T): T {
  try {
    return (JSON.parse(localStorage.getItem(key) ?? "null") as T | null) ?? otherwise;
  } catch {
    return otherwise;
  }
}

/** @param value null takes it away. */
export function writeKept(key: string, value: unknown): void {
  try {
    if (value === null) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // A device without room, or private: it stays in the page as long as that is open.
  }
}

/** What is being typed at a place, through a reload or a look elsewhere; null begins it anew. */
export function useKept<T>(place: string, first: () => T): [T, (value: T | null) => void] {
  const [value, setValue] = useState(() => readKept(place, null) ?? first());
  const put = useCallback(
    (next: T | null) => {
      writeKept(place, next);
      setValue(next ?? first());
    },
    [place, first],
  );
  return [value, put];
}
