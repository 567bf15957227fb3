/** Typical values of a field, asked for when it has the focus. */
import { useEffect, useState } from "react";
import { api, type TypicalValue } from "../api/client";
import { useEdit } from "./context";

const NONE: TypicalValue[] = [];

export function useTypical(path: string, wanted: boolean): TypicalValue[] {
  const { present } = useEdit();
  const [values, setValues] = useState(NONE);
  useEffect(() => {
    if (!wanted) return setValues(NONE);
    const stop = new AbortController();
    const ask = async () => {
      try {
        const body = { document: present() as unknown as Record<string, unknown>, path };
        const { data } = await api.POST("/api/typical/", { body, signal: stop.signal });
        setValues(data ?? NONE);
      } catch {
        // No connection, or the field was left meanwhile: it can be typed in all the same.
      }
    };
    void ask();
    return () => stop.abort();
  }, [path, wanted, present]);
  return values;
}
