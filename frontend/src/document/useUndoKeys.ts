import { useEffect } from "react";

/** Ctrl Z and Ctrl Shift Z, wherever on the screen. */
export function useUndoKeys(dispatch: (action: { type: "undo" | "redo" }) => void): void {
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z") return;
      // In a field that is being typed into, the browser's own undo is the one that is meant.
      const field =
        event.target instanceof HTMLInputElement && event.target.value !== event.target.defaultValue;
      if (field) return;
      event.preventDefault();
      dispatch({ type: event.shiftKey ? "redo" : "undo" });
    };
    window.addEventListener("keydown", onKeyDown);
    return () => window.removeEventListener("keydown", onKeyDown);
  }, [dispatch]);
}
