/**
 * What the core makes of an instrument's lines so far: one request at a time, always ending with the newest lines, and
 * asked again where no answer came.
 */
import { useEffect, useRef, useState } from "react";
import { answer, api, isRefusal, type Listened } from "../../../api/client";
import { pause } from "../../../api/connection";

const EVERY_MS = 350;

interface Question {
  lines: string[];
  distance: string;
}

export function useListened(lines: string[], distance: string): Listened | null {
  const [listened, setListened] = useState<Listened | null>(null);
  const newest = useRef<Question | null>(null);
  const busy = useRef(false);
  useEffect(
    () => () => {
      newest.current = null;
    },
    [],
  );
  useEffect(() => {
    newest.current = lines.length > 0 ? { lines, distance } : null;
    if (newest.current === null) setListened(null);
    else void follow();

    async function follow() {
      if (busy.current) return;
      busy.current = true;
      let answered: Question | null = null;
      for (let tries = 0; newest.current && newest.current !== answered; ) {
        await new Promise((passed) => window.setTimeout(passed, tries ? pause(tries - 1) : EVERY_MS));
        const asked: Question | null = newest.current;
        const made = asked && (await listen(asked));
        tries = made === "later" ? tries + 1 : 0;
        if (made === "later") continue;
        answered = asked;
        if (newest.current && made) setListened(made);
      }
      busy.current = false;
    }
  }, [lines, distance]);
  return listened;
}

/** "later" where there was no answer; none where asking again would change nothing. */
async function listen({ lines, distance }: Question): Promise<Listened | "later" | null> {
  try {
    return await answer(api.POST("/api/instruments/lines/", { body: { lines, more: { distance } } }));
  } catch (error) {
    return isRefusal(error) ? null : "later";
  }
}
