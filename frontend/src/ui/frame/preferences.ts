/** What a person chose for this device: units, the way ratios are read, light or dark. */
import { useCallback, useEffect, useState } from "react";
import type { System } from "../fields/units";

export interface Preferences {
  system: System;
  reducing: boolean;
  dark: boolean;
  letterKeys: boolean;
  /** Whether assumed values count as doubtful. */
  doubtAssumed: boolean;
}

const KEY = "ydrometer-preferences";

function read(): Preferences {
  const dark = window.matchMedia?.("(prefers-color-scheme: dark)").matches ?? false;
  const first: Preferences = { system: "metric", reducing: true, dark, letterKeys: true, doubtAssumed: true };
  try {
    return { ...first, ...(JSON.parse(localStorage.getItem(KEY) ?? "{}") as Partial<Preferences>) };
  } catch {
    return first;
  }
}

export function usePreferences(): [Preferences, (change: Partial<Preferences>) => void] {
  const [preferences, setPreferences] = useState(read);
  useEffect(() => {
    document.documentElement.classList.toggle("dark", preferences.dark);
    document.documentElement.style.colorScheme = preferences.dark ? "dark" : "light";
    localStorage.setItem(KEY, JSON.stringify(preferences));
  }, [preferences]);
  const change = useCallback(
    (part: Partial<Preferences>) => setPreferences((old) => ({ ...old, ...part })),
    [],
  );
  return [preferences, change];
}
