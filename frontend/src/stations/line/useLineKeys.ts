/** The keys of the Line, while its drawing has the focus. */
import type { KeyboardEvent } from "react";
import { useEdit, useFigures } from "../../document/context";
import { duplicateStage, moveStage, removeStage } from "../../document/stages";
import { useBar } from "../../ui/frame/TopBar";
import { useChange } from "./selected/StageActions";

interface Ways {
  toggleTable: () => void;
  showKeys: () => void;
}

export function useLineKeys({ toggleTable, showKeys }: Ways): (event: KeyboardEvent) => void {
  const { selected } = useFigures();
  const { setMark } = useEdit();
  const { preferences } = useBar();
  const change = useChange();
  const path = selected?.path ?? "";
  const letters: Record<string, () => void> = {
    m: setMark,
    d: () => change((old, kinds) => duplicateStage(kinds, old, path)),
    a: () =>
      document.querySelector<HTMLSelectElement>("select[aria-label='Add a stage after this']")?.focus(),
    t: toggleTable,
  };
  const others: Record<string, () => void> = {
    "?": showKeys,
    Delete: () => change((old, kinds) => removeStage(kinds, old, path)),
    ArrowLeft: () => walk(-1),
    ArrowRight: () => walk(1),
    "Shift ArrowLeft": () => change((old, kinds) => moveStage(kinds, old, path, -1)),
    "Shift ArrowRight": () => change((old, kinds) => moveStage(kinds, old, path, 1)),
  };
  return (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const name = event.shiftKey && event.key.startsWith("Arrow") ? `Shift ${event.key}` : event.key;
    const act = others[name] ?? (preferences.letterKeys ? letters[event.key.toLowerCase()] : undefined);
    if (!act) return;
    event.preventDefault();
    act();
  };
}

/** The focus to the next thing in the drawing, in the order of power. */
function walk(by: number): void {
  const stops = [...document.querySelectorAll<SVGElement>("[data-stop]")];
  const here = stops.indexOf(document.activeElement as SVGElement);
  stops[(here + by + stops.length) % stops.length]?.focus();
}
