/** What a measuring aid finds from what was typed, asked of the core as it is typed. */
import { useEffect, useState } from "react";
import { type Aid, api, type Fault, type Finding, type Refusal } from "../../api/client";

interface Answer {
  finding: Finding | null;
  faults: Fault[];
}

export function useFinding(aid: Aid, given: Record<string, string | boolean>): Answer {
  const [answer, setAnswer] = useState<Answer>({ finding: null, faults: [] });
  useEffect(() => {
    if (!aid.inputs.every((input) => input.flag || given[input.symbol])) {
      setAnswer({ finding: null, faults: [] });
      return;
    }
    const stop = new AbortController();
    void (async () => {
      try {
        const { data, error } = await api.POST("/api/aids/", {
          body: { aid: aid.name, given },
          signal: stop.signal,
        });
        const faults = (error as Refusal | undefined)?.faults ?? [];
        setAnswer({ finding: data ?? null, faults });
      } catch {
        // Typed on meanwhile, or no connection: what was found before stays out.
        setAnswer({ finding: null, faults: [] });
      }
    })();
    return () => stop.abort();
  }, [aid, given]);
  return answer;
}
