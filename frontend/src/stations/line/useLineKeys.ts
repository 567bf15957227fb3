/** The keys of the Line, while its drawing has the focus. */
import type { KeyboardEvent } from "react";
import { useEdit, useFigures } from "../../document/context";
import { duplicateStage, moveStage, removeStage } from "../../document/stages";
import { type Command, useCommands } from "../../ui/commands/commands";
import { useBar } from "../../ui/frame/TopBar";
import { useChange } from "./selected/StageActions";

const GROUP = "Line, while its drawing has the focus";
/** Keys that act on what has the focus, and so on nothing from elsewhere. */
const WALKING: Command[] = [
  { keys: "Tab, ← →", words: "to the next wheel, box or motor", group: GROUP },
  { keys: "↑ ↓", words: "the next size in the bin, or of what is swept", group: GROUP },
  { keys: "Alt ↑, Alt ↓", words: "one tooth more or less", group: GROUP },
  { keys: "Page ↑, Page ↓", words: "five sizes more or less", group: GROUP },
];

export function useLineKeys(toggleTable: () => void): (event: KeyboardEvent) => void {
  const { selected } = useFigures();
  const { setMark } = useEdit();
  const { preferences } = useBar();
  const change = useChange();
  const path = selected?.path ?? "";
  const acts: (Command & { on: string; letter?: boolean; run: () => void })[] = [
    {
      on: "m",
      letter: true,
      keys: "M",
      words: "Set the mark: every value then shows the difference",
      run: setMark,
    },
    {
      on: "a",
      letter: true,
      keys: "A",
      words: "Add a stage after the selected one",
      run: () =>
        document.querySelector<HTMLSelectElement>("select[aria-label='Add a stage after this']")?.focus(),
    },
    {
      on: "d",
      letter: true,
      keys: "D",
      words: "Double the selected stage",
      run: () => change((old, kinds) => duplicateStage(kinds, old, path)),
    },
    { on: "t", letter: true, keys: "T", words: "The drawing as a table", run: toggleTable },
    {
      on: "Delete",
      keys: "Del",
      words: "Remove the selected stage",
      run: () => change((old, kinds) => removeStage(kinds, old, path)),
    },
    {
      on: "Shift ArrowLeft",
      keys: "Shift ←",
      words: "The selected stage one place earlier",
      run: () => change((old, kinds) => moveStage(kinds, old, path, -1)),
    },
    {
      on: "Shift ArrowRight",
      keys: "Shift →",
      words: "The selected stage one place later",
      run: () => change((old, kinds) => moveStage(kinds, old, path, 1)),
    },
  ].map((act) => ({ ...act, group: GROUP }));
  useCommands([...WALKING, ...acts]);
  return (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const name = event.shiftKey && event.key.startsWith("Arrow") ? `Shift ${event.key}` : event.key;
    const walked = { ArrowLeft: -1, ArrowRight: 1 }[name];
    const act = acts.find((act) =>
      act.letter ? preferences.letterKeys && act.on === name.toLowerCase() : act.on === name,
    );
    if (!act && walked === undefined) return;
    event.preventDefault();
    if (walked !== undefined) walk(walked);
    act?.run();
  };
}

/** The focus to the next thing in the drawing, in the order of power. */
function walk(by: number): void {
  const stops = [...document.querySelectorAll<SVGElement>("[data-stop]")];
  const here = stops.indexOf(document.activeElement as SVGElement);
  stops[(here + by + stops.length) % stops.length]?.focus();
}
