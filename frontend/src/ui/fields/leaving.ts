/** What stands in a field counts when the page is left or hidden, as if the field had been left. */
import { useEffect, useRef } from "react";
import { flushSync } from "react-dom";

const open = new Set<() => void>();

/** Have a field's text taken over when the page goes. */
export function useTakenOnLeaving(commit: () => void): void {
  const newest = useRef(commit);
  newest.current = commit;
  useEffect(() => {
    const take = () => newest.current();
    open.add(take);
    return () => {
      open.delete(take);
    };
  }, []);
}

/** Take over what stands in all fields, now. */
export function takeAll(): void {
  flushSync(() => {
    for (const take of [...open]) take();
  });
}

// Listened to before the router is there to listen: its answer to going back takes the fields away.
window.addEventListener("popstate", takeAll, true);
