/** What is said of lines: shown at once, kept on the device until the server has it. */

import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, isRefusal, type PartLine, type PurchaseState, refusalText } from "../../api/client";
import { usePlace } from "../../document/context";
import { newId } from "../../document/newId";
import { useOutbox } from "../../document/useOutbox";
import { keptKey } from "../../ui/kept";

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
  /** Written down by the server, and not yet in what it shows. */
  const [sent, setSent] = useState<Said[]>([]);
  const [trouble, setTrouble] = useState("");
  const { waiting, add } = useOutbox<Said>(keptKey("parts", account, vehicle), async (entries) => {
    const refused = await written(vehicle, entries);
    setTrouble(refused);
    if (refused) return;
    setSent((old) => [...old.filter((entry) => entries.every((e) => e.key !== entry.key)), ...entries]);
    for (const key of ["pulse", "build"]) void queries.invalidateQueries({ queryKey: [key, vehicle] });
  });
  return {
    say: (line, said) => {
      const { key, state, expected, paid } = line;
      const at = new Date().toISOString();
      add({ id: newId(), key, state, expected, paid, at, ...said });
    },
    with: (line) => {
      const own = [...sent, ...waiting].filter((one) => one.key === line.key).at(-1);
      return own ? { ...line, state: own.state, expected: own.expected, paid: own.paid } : line;
    },
    trouble:
      trouble ||
      (waiting.length ? "Not sent yet: it is kept here, and sent when there is a connection." : ""),
  };
}

/** Hand entries to the server; why it refuses them, empty where it does not. */
async function written(vehicle: string, entries: Said[]): Promise<string> {
  try {
    const request = { params: { path: { vehicle } }, body: { entries } };
    await answer(api.POST("/api/vehicles/{vehicle}/parts-list/entries/", request));
    return "";
  } catch (error) {
    if (isRefusal(error)) return refusalText(error.refusal);
    throw error;
  }
}
