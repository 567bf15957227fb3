/** The practice rig of a vehicle: what it does, and its lines as they come, over a connection that may break. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { answer, api, type RigState, troubleText } from "../../../api/client";
import { useEdit, usePlace } from "../../../document/context";
import type { DesignDocument } from "../../../document/document";

const LOOK_MS = 2500;

export type Action = "spin" | "run" | "push" | "tow";
export type Change = "stop" | "charge" | "show" | "start anew";

export interface PracticeRig {
  state: RigState | null;
  lines: string[];
  /** Whether its lines do not come for want of a connection. */
  lost: boolean;
  trouble: string;
  order: (action: Action, repeats: number, tried: number | null, own?: DesignDocument) => Promise<boolean>;
  change: (what: Change) => Promise<void>;
}

export function useRig(): PracticeRig {
  const { vehicle } = usePlace();
  const { present } = useEdit();
  const queries = useQueryClient();
  const [lines, setLines] = useState<string[]>([]);
  const [lost, setLost] = useState(false);
  const [trouble, setTrouble] = useState("");
  const stream = useRef<EventSource | null>(null);
  const params = { params: { path: { vehicle } } };
  const key = ["rig", vehicle];
  const state = useQuery({
    queryKey: key,
    queryFn: () => answer(api.GET("/api/vehicles/{vehicle}/rig/", params)),
    staleTime: 0,
    // Somebody else may set it to work: then it is watched here too.
    refetchInterval: LOOK_MS,
  });
  const over = useCallback(() => {
    stream.current?.close();
    stream.current = null;
    void queries.invalidateQueries({ queryKey: ["rig", vehicle] });
    void queries.invalidateQueries({ queryKey: ["runs", vehicle] });
    void queries.invalidateQueries({ queryKey: ["last-runs"] });
  }, [queries, vehicle]);
  const listen = useCallback(
    (after: number) => {
      stream.current?.close();
      setLines([]);
      const source = new EventSource(`/api/vehicles/${vehicle}/rig/stream/?after=${after}`);
      stream.current = source;
      // The browser comes again by itself, with the number of the last line it has.
      source.onopen = () => setLost(false);
      source.onerror = () => setLost(!navigator.onLine || source.readyState === EventSource.CLOSED);
      source.onmessage = (event) => {
        if ("done" in JSON.parse(event.data)) over();
        else setLines((old) => [...old, event.data as string]);
      };
    },
    [vehicle, over],
  );
  const working = state.data?.action ?? null;
  const after = state.data?.after ?? 0;
  useEffect(() => {
    if (working && !stream.current) listen(after);
  }, [working, after, listen]);
  useEffect(() => () => stream.current?.close(), []);
  const ask = async (asked: () => Promise<RigState>) => {
    setTrouble("");
    try {
      const reply = await asked();
      queries.setQueryData(key, reply);
      return reply;
    } catch (error) {
      setTrouble(troubleText(error));
      return null;
    }
  };
  return {
    state: state.data ?? null,
    lines,
    lost,
    trouble,
    order: async (action, repeats, tried, own) => {
      const design = tried === null ? ((own ?? present()) as unknown as Record<string, unknown>) : null;
      const body = { action, repeats, tried, design };
      const made = await ask(() => answer(api.POST("/api/vehicles/{vehicle}/rig/", { ...params, body })));
      if (made) listen(made.after);
      return made !== null;
    },
    change: async (what) => {
      await ask(() => answer(api.PATCH("/api/vehicles/{vehicle}/rig/", { ...params, body: { do: what } })));
      if (what === "stop") over();
    },
  };
}
