/** Shows what others save, within a few seconds and without a reload. */
import { useEffect } from "react";
import { api } from "../api/client";
import type { Autosave, Base } from "./useAutosave";

const EVERY_MS = 4000;

/** `arrived` is told of each revision that others have saved while nothing here waits to be saved. */
export function useOthers(
  vehicle: string,
  saving: Autosave,
  arrived: (revision: Base, author: string | null) => void,
): void {
  const { state, base } = saving;
  const quiet = state.kind === "saved";
  useEffect(() => {
    if (!quiet) return;
    let gone = false;
    const look = async () => {
      if (window.document.visibilityState === "hidden") return;
      const path = { params: { path: { vehicle } } };
      const newest = await api.GET("/api/vehicles/{vehicle}/newest/", path);
      if (gone || !newest.data || newest.data.number <= base.current.number) return;
      const found = await api.GET("/api/vehicles/{vehicle}/", path);
      if (gone || !found.data) return;
      const { number, document, saved_at, author } = found.data.revision;
      arrived({ number, document: document as unknown as Base["document"], saved_at }, author ?? null);
    };
    const timer = window.setInterval(() => void look().catch(() => {}), EVERY_MS);
    return () => {
      gone = true;
      window.clearInterval(timer);
    };
  }, [vehicle, quiet, base, arrived]);
}
