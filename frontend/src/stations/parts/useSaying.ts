/** What is said of lines: shown at once, kept on the device until the server has it. */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { answer, api, type PartLine, type PurchaseState, RefusedError, refusalText } from "../../api/client";
import { usePlace } from "../../document/context";
import { readKept, writeKept } from "../../document/kept";

const AGAIN_MS = 8000;

export interface Said {
  id: string;
  key: string;
  state: PurchaseState;
  at: string;
  expected: string | null;
  paid: number | null;
}

export type Say = (line: PartLine, said: Partial<Pick<Said, "state" | "expected" | "paid">>) => void;

export interface Saying {
  say: Say;
  /** A line with what has been said of it here and has not come back yet. */
  with: (line: PartLine) => PartLine;
  trouble: string;
}

export function useSaying(vehicle: string): Saying {
  const { account } = usePlace();
  const queries = useQueryClient();
  const place = `ydrometer-parts|${account}|${vehicle}`;
  const [waiting, setWaiting] = useState(() => readKept<Said[]>(place, []));
  /** Written down by the server, and not yet in what it shows. */
  const [sent, setSent] = useState<Said[]>([]);
  const [trouble, setTrouble] = useState("");
  const newest = useRef(waiting);
  const keep = useCallback(
    (entries: Said[]) => {
      newest.current = entries;
      writeKept(place, entries.length ? entries : null);
      setWaiting(entries);
    },
    [place],
  );
  const send = useCallback(async () => {
    const entries = newest.current;
    if (entries.length === 0) return;
    const others = () => newest.current.filter((one) => !entries.includes(one));
    try {
      const asked = { params: { path: { vehicle } }, body: { entries } };
      await answer(api.POST("/api/vehicles/{vehicle}/parts-list/entries/", asked));
      keep(others());
      setSent((old) => [...old.filter((one) => entries.every((e) => e.key !== one.key)), ...entries]);
      setTrouble("");
      void queries.invalidateQueries({ queryKey: ["pulse", vehicle] });
      void queries.invalidateQueries({ queryKey: ["build", vehicle] });
    } catch (error) {
      if (error instanceof RefusedError && error.status < 500 && error.status !== 401) {
        keep(others());
        setTrouble(refusalText(error.refusal));
      } else setTrouble("Not sent yet: it is kept here, and sent when there is a connection.");
    }
  }, [vehicle, keep, queries]);
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
  return {
    say: (line, said) => {
      const { key, state, expected, paid } = line;
      const entry = {
        id: crypto.randomUUID(),
        key,
        state,
        expected,
        paid,
        at: new Date().toISOString(),
        ...said,
      };
      keep([...newest.current, entry]);
      void send();
    },
    with: (line) => {
      const own = [...sent, ...waiting].filter((one) => one.key === line.key).at(-1);
      return own ? { ...line, state: own.state, expected: own.expected, paid: own.paid } : line;
    },
    trouble,
  };
}
