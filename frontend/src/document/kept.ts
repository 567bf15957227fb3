/** Small things kept on the device until the server has them. */

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
