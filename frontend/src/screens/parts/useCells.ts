/** Typing in the cells of a kind of parts: changing one that is there, and beginning the next. */
import { useCallback, useRef, useState } from "react";
import { type PartDocument, partOf, partsOf } from "../../document/bin/bin";
import { type Column, freeId, type PartKind, withCell } from "../../document/bin/cells";
import type { BinOnScreen } from "../../document/bin/useBin";
import { useUnits } from "../../ui/fields/units";

export function useCells(kind: PartKind, { state, dispatch }: BinOnScreen) {
  const units = useUnits();
  const [drafts, setDrafts] = useState(0);
  const present = useRef(state);
  present.current = state;
  const change = useCallback(
    (id: string, column: Column, text: string) => {
      const before = partOf(present.current, id);
      if (before)
        dispatch({ type: "edit", changes: [{ id, before, after: withCell(units, column, before, text) }] });
    },
    [dispatch, units],
  );
  const begin = (column: Column, text: string) => {
    const id = freeId(kind.kind, new Set(partsOf(state).map((part) => part.id)));
    const blank = { id, kind: kind.kind, ...structuredClone(kind.fixed), owned: 1 } as PartDocument;
    dispatch({ type: "edit", changes: [{ id, before: null, after: withCell(units, column, blank, text) }] });
    setDrafts(drafts + 1);
  };
  return { change, begin, drafts };
}
