/** Whether the server has another version of the page by now than the one that is open. */
import { useSyncExternalStore } from "react";

let other = false;
const watching = new Set<() => void>();

/** The name of the page's first script. */
function own(): string {
  const script = document.querySelector<HTMLScriptElement>('script[type="module"][src*="/index-"]');
  return script?.src.match(/(index-[^/]+)\.js/)?.[1] ?? "";
}

/** @param served as the server names it in each answer; null where an answer came from elsewhere. */
export function sawVersion(served: string | null): void {
  const mine = own();
  if (!served || !mine || (served !== mine) === other) return;
  other = served !== mine;
  for (const tell of watching) tell();
}

export function useOtherVersion(): boolean {
  return useSyncExternalStore(
    (tell) => {
      watching.add(tell);
      return () => watching.delete(tell);
    },
    () => other,
  );
}
