/** The bin of a workshop: loaded once, changed at typing speed, saved shortly after each change. */
import { queryOptions, useQuery } from "@tanstack/react-query";
import { type Dispatch, useEffect, useReducer, useRef, useState } from "react";
import { answer, api, type Fault, type PartConflict, type Refusal } from "../../api/client";
import { keptKey, readList, writeKept } from "../../ui/kept";
import { useUndoKeys } from "../useUndoKeys";
import { type Bin, type BinAction, bin, emptyBin, type Sent, type Stored, toSend } from "./bin";

const QUIET_MS = 350;
const RETRY_MS = 4000;

/** How the bin of a workshop is asked for. */
export const partsQuery = (workshop: string) =>
  queryOptions({
    queryKey: ["parts", workshop],
    queryFn: async () => {
      const reply = await answer(
        api.GET("/api/workshops/{workshop}/parts/", { params: { path: { workshop } } }),
      );
      return reply as unknown as Stored[];
    },
  });

export function useParts(workshop: string) {
  return useQuery({ ...partsQuery(workshop), staleTime: 0 });
}

export interface BinOnScreen {
  state: Bin;
  dispatch: Dispatch<BinAction>;
  loaded: boolean;
  /** "saved", "saving", "faulty", or what is in the way. */
  saving: string;
}

export function useBin(account: string, workshop: string): BinOnScreen {
  const place = keptKey("bin", account, workshop);
  const parts = useParts(workshop);
  const [state, dispatch] = useReducer(bin, null, () => emptyBin(readList(place)));
  const [trouble, setTrouble] = useState("");
  const [turn, setTurn] = useState(0);
  const busy = useRef(false);

  useEffect(() => {
    if (parts.data && !busy.current) dispatch({ type: "loaded", parts: parts.data });
  }, [parts.data]);
  useEffect(
    () => writeKept(place, state.pending.size > 0 ? [...state.pending] : null),
    [place, state.pending],
  );
  useUndoKeys(dispatch);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a turn asks for another try of the same changes
  useEffect(() => {
    const changes = toSend(state);
    if (changes.length === 0 || !parts.data || busy.current) return;
    const wait = window.setTimeout(async () => {
      busy.current = true;
      const reply = await send(workshop, changes, dispatch);
      busy.current = false;
      setTrouble(reply);
      if (reply) window.setTimeout(() => setTurn((t) => t + 1), RETRY_MS);
      else setTurn((t) => t + 1);
    }, QUIET_MS);
    return () => window.clearTimeout(wait);
  }, [state, turn, workshop, parts.data]);

  const waiting = toSend(state).length > 0;
  const saving = trouble || (waiting ? "saving" : state.pending.size > 0 ? "faulty" : "saved");
  return { state, dispatch, loaded: parts.isSuccess, saving };
}

/** Sends changes; what the server says goes into the bin. Returns what is in the way, empty where nothing is. */
async function send(workshop: string, changes: Sent[], dispatch: Dispatch<BinAction>): Promise<string> {
  try {
    const { data, error, response } = await api.POST("/api/workshops/{workshop}/parts/", {
      params: { path: { workshop } },
      body: { changes: changes as never },
    });
    if (data) dispatch({ type: "saved", sent: changes, parts: data as unknown as Stored[] });
    else if (response.status === 409) dispatch(staleAction(changes, error as PartConflict));
    else return refused(changes, error as Refusal | undefined, response.status, dispatch);
    return "";
  } catch {
    return "not saved: no connection; kept on this device";
  }
}

function staleAction(changes: Sent[], conflict: PartConflict): BinAction {
  const present = conflict.present as unknown as Stored[];
  const known = new Map(present.map((part) => [part.document.id, part.version]));
  const ids = changes.filter((c) => c.base !== (known.get(c.id) ?? (c.base === 0 ? 0 : -1))).map((c) => c.id);
  return { type: "stale", ids, present };
}

function refused(
  changes: Sent[],
  refusal: Refusal | undefined,
  status: number,
  dispatch: Dispatch<BinAction>,
): string {
  const faults = new Map<string, Fault[]>();
  for (const fault of refusal?.faults ?? []) {
    const match = /^changes\[(\d+)\]\.?(.*)$/.exec(fault.path);
    const change = match && changes[Number(match[1])];
    if (match && change)
      faults.set(change.id, [...(faults.get(change.id) ?? []), { ...fault, path: match[2] ?? "" }]);
  }
  if (faults.size === 0) return `not saved: ${refusal?.detail ?? `the server answered with ${status}`}`;
  dispatch({ type: "refused", faults });
  return "";
}
