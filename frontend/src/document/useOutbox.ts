/** Things said on this device that the server does not have yet: kept through a lost connection, sent in their order. */
import { useCallback, useEffect, useRef, useState } from "react";
import { readList, writeKept } from "../ui/kept";

const AGAIN_MS = 5000;
const MOST_AT_ONCE = 100;

export interface Outbox<T> {
  waiting: T[];
  add: (entry: T) => void;
}

/**
 * @param place under which they are kept.
 * @param deliver hands some of them to the server; where it throws they stay, and are tried again.
 */
export function useOutbox<T>(place: string, deliver: (entries: T[]) => Promise<void>): Outbox<T> {
  const [waiting, setWaiting] = useState(() => readList<T>(place));
  const newest = useRef(waiting);
  const sending = useRef(false);
  const delivering = useRef(deliver);
  delivering.current = deliver;
  const keep = useCallback(
    (entries: T[]) => {
      newest.current = entries;
      writeKept(place, entries.length ? entries : null);
      setWaiting(entries);
    },
    [place],
  );
  const send = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      while (newest.current.length > 0) {
        const entries = newest.current.slice(0, MOST_AT_ONCE);
        await delivering.current(entries);
        keep(newest.current.filter((one) => !entries.includes(one)));
      }
    } catch {
      // No connection: they wait.
    } finally {
      sending.current = false;
    }
  }, [keep]);
  useEffect(() => {
    const again = () => void send();
    again();
    window.addEventListener("online", again);
    const timer = window.setInterval(again, AGAIN_MS);
    return () => {
      window.removeEventListener("online", again);
      window.clearInterval(timer);
    };
  }, [send]);
  const add = useCallback(
    (entry: T) => {
      keep([...newest.current, entry]);
      void send();
    },
    [keep, send],
  );
  return { waiting, add };
}
