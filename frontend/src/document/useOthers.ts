/** Shows what others save, within a few seconds and without a reload, and who they are. */
import { useEffect, useState } from "react";
import { api, type Other } from "../api/client";
import type { StationKey } from "../words/stations";
import type { Base } from "./seen";
import type { Autosave } from "./useAutosave";

const EVERY_MS = 4000;

/**
 * Who else is at the vehicle. `arrived` is told of each revision that others have saved while nothing here waits to be
 * saved; the others are told at which station one is.
 */
export function useOthers(
  vehicle: string,
  station: StationKey,
  saving: Autosave,
  arrived: (revision: Base, author: string | null) => void,
): Other[] {
  const [others, setOthers] = useState<Other[]>([]);
  const { state, base } = saving;
  const quiet = state.kind === "saved";
  useEffect(() => {
    if (!quiet) return;
    let gone = false;
    const look = async () => {
      if (window.document.visibilityState === "hidden") return;
      const path = { params: { path: { vehicle } } };
      const here = { params: { path: { vehicle }, query: { station } } };
      const newest = await api.GET("/api/vehicles/{vehicle}/newest/", here);
      if (gone || !newest.data) return;
      const { others: found } = newest.data;
      // The same people at the same stations are not painted again.
      setOthers((known) => (JSON.stringify(known) === JSON.stringify(found) ? known : found));
      if (newest.data.number <= base.current.number) return;
      const whole = await api.GET("/api/vehicles/{vehicle}/", path);
      if (gone || !whole.data) return;
      const { number, document, saved_at, author } = whole.data.revision;
      arrived({ number, document: document as unknown as Base["document"], saved_at }, author ?? null);
    };
    const timer = window.setInterval(() => void look().catch(() => {}), EVERY_MS);
    return () => {
      gone = true;
      window.clearInterval(timer);
    };
  }, [vehicle, station, quiet, base, arrived]);
  return others;
}
