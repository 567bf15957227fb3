/** A race's board: what is done with it goes upon what others did, and is undone alone. */
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Race, troubleText } from "../../api/client";
import { upon } from "../../api/upon";
import { type Board, boardOf, type Change } from "./board";

export interface BoardHeld {
  board: Board;
  /** Do it; true where it is kept. `still` says whether it makes sense in a state that somebody else has made. */
  change: (change: Change, still?: (race: Race) => boolean) => Promise<boolean>;
  undo: (() => void) | null;
  trouble: string;
}

export function useBoard(race: Race): BoardHeld {
  const queries = useQueryClient();
  const [past, setPast] = useState<Change[]>([]);
  const [trouble, setTrouble] = useState("");
  const params = { params: { path: { race: race.id } } };
  const request = {
    queryKey: ["race", race.id],
    queryFn: () => answer(api.GET("/api/races/{race}/", params)),
  };
  const put = async (found: Race, how: Change["apply"]) => {
    const document = how(boardOf(found.document)) as unknown as Record<string, unknown>;
    const body = { base: found.version, document };
    queries.setQueryData(request.queryKey, await answer(api.PUT("/api/races/{race}/", { ...params, body })));
  };
  const save = async (how: Change["apply"], words: string, still: (race: Race) => boolean) => {
    setTrouble("");
    try {
      await upon(
        race,
        () => queries.fetchQuery(request),
        (found) => put(found, how),
        still,
      );
      return true;
    } catch (error) {
      // Faults of a document end without a full stop.
      setTrouble(`${troubleText(error).replace(/\.?$/, ".")} Not kept: ${words}.`);
      return false;
    }
  };
  return {
    board: boardOf(race.document),
    change: async (made, still = () => true) => {
      const kept = await save(made.apply, made.words, still);
      if (kept) setPast((old) => [...old, made]);
      return kept;
    },
    undo: past.length
      ? () => {
          const last = past.at(-1) as Change;
          void save(last.revert, last.words, () => true).then(
            (kept) => kept && setPast((old) => old.slice(0, -1)),
          );
        }
      : null,
    trouble,
  };
}
