/** The keys of Loads, while its bars have the focus. */
import type { KeyboardEvent } from "react";
import type { LoadedPart } from "../../api/client";
import { useAsk, useEdit } from "../../document/context";
import { keysOf, useCommands } from "../../ui/commands/commands";
import { useBar } from "../../ui/frame/TopBar";
import { relieved } from "./PartRows";
import { useHelps, useTry } from "./useHelps";

const KEYS = keysOf("Loads, while its bars have the focus", [
  ["↑ ↓", "the next part"],
  ["1 2 3", "try what would relieve it"],
  ["W", "its working"],
  ["T", "the bars as a table"],
  ["M", "set the mark"],
]);

export function useLoadKeys(
  part: LoadedPart | null,
  toggleTable: () => void,
): (event: KeyboardEvent) => void {
  useCommands(KEYS);
  const { setMark, readOnly } = useEdit();
  const { preferences } = useBar();
  const ask = useAsk();
  const row = part && relieved(part);
  const helps = useHelps(row);
  const tried = useTry();
  const letters: Record<string, () => void> = {
    m: setMark,
    t: toggleTable,
    w: () => part?.rows[0] && ask({ measure: part.rows[0].check, at: null, row: part.rows[0] }),
  };
  return (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || !preferences.letterKeys) return;
    const help = helps[Number(event.key) - 1];
    const act =
      help && help.changes.length > 0 && !readOnly ? () => tried(help) : letters[event.key.toLowerCase()];
    if (!act) return;
    event.preventDefault();
    act();
  };
}
