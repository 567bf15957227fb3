/** Parts that are ticked in the table, and what is done with them. */
import { useCallback, useState } from "react";
import { type PartDocument, partsOf } from "../../document/bin/bin";
import { freeId } from "../../document/bin/cells";
import type { BinOnScreen } from "../../document/bin/useBin";

export function useTicked({ state, dispatch }: BinOnScreen, shown: PartDocument[]) {
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const tick = useCallback(
    (id: string, on: boolean) =>
      setTicked((old) => new Set(on ? [...old, id] : [...old].filter((entry) => entry !== id))),
    [],
  );
  const chosen = shown.filter((part) => ticked.has(part.id));
  const remove = () => {
    dispatch({ type: "edit", changes: chosen.map((part) => ({ id: part.id, before: part, after: null })) });
    setTicked(new Set());
  };
  const copy = () => {
    const taken = new Set(partsOf(state).map((part) => part.id));
    const copies = chosen.map((part) => {
      const id = freeId(part.kind, taken);
      taken.add(id);
      return { id, before: null, after: { ...part, id } };
    });
    dispatch({ type: "edit", changes: copies });
    setTicked(new Set());
  };
  return { ticked, tick, chosen: chosen.length, remove, copy };
}
