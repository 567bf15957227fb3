/** The log of a vehicle: what the server has, what waits on this device, and changes to either. */

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import {
  answer,
  api,
  isRefusal,
  type LoggedRun,
  type LogPage,
  type Refusal,
  troubleText,
} from "../../api/client";
import { useEdit, usePlace } from "../../document/context";
import type { DesignDocument } from "../../document/document";
import { newId } from "../../document/newId";
import type { RunDocument } from "./run";
import { keepWaiting, type Waiting, waitingRuns } from "./waiting";

const AGAIN_MS = 8000;
/** After which it is looked whether others have logged something. */
const OTHERS_MS = 10_000;

/** The id of a run, why the server refuses it where it does, and the run where it has come. */
export interface Logged {
  id: string;
  refused: Refusal | null;
  run: LoggedRun | null;
}

export interface Runs {
  /** The newest first, as far as they are read; null before the first answer. */
  logged: LoggedRun[] | null;
  /** How many there are, without those that were put away, and how many of these. */
  count: number;
  away: number;
  /** Reads those that are older than all that are here; null where all are. */
  more: (() => Promise<void>) | null;
  /** Whether the log cannot be had now, and none is known from before. */
  unread: boolean;
  waiting: Waiting[];
  /** Log a run; what the server refuses comes back, what does not reach it waits. */
  log: (document: RunDocument, tried: number | null, own?: DesignDocument) => Promise<Logged>;
  /** Take one that waits away again, back into the form. */
  takeBack: (id: string) => void;
  change: (run: LoggedRun, patch: { document?: RunDocument; put_away?: boolean }) => Promise<void>;
  /** Log the runs of a file, all or none. */
  open: (file: File) => Promise<void>;
  trouble: string;
}

export function useRuns(): Runs {
  const { account, vehicle } = usePlace();
  const { present } = useEdit();
  const queries = useQueryClient();
  const [waiting, setWaiting] = useState(() => waitingRuns(account, vehicle));
  const [trouble, setTrouble] = useState("");
  const newest = useRef(waiting);
  const keep = useCallback(
    (runs: Waiting[]) => {
      newest.current = runs;
      keepWaiting(account, vehicle, runs);
      setWaiting(runs);
    },
    [account, vehicle],
  );
  const list = useQuery({
    queryKey: ["runs", vehicle],
    queryFn: () => pageOf(vehicle),
    refetchInterval: OTHERS_MS,
  });
  const [older, setOlder] = useState<LogPage | null>(null);
  const arrived = useCallback(
    (run: LoggedRun) => {
      queries.setQueryData<LogPage>(["runs", vehicle], (old) => old && withRun(old, run));
      setOlder((old) => old && { ...old, runs: old.runs.filter((entry) => entry.id !== run.id) });
      void queries.invalidateQueries({ queryKey: ["last-runs"] });
    },
    [queries, vehicle],
  );
  const logged = useMemo(
    () => list.data && byTime([...list.data.runs, ...notIn(list.data.runs, older?.runs ?? [])]),
    [list.data, older],
  );
  const hasMore = (older ?? list.data)?.older;
  const sending = useRef(false);
  const send = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      for (const run of newest.current.filter((one) => !one.refused)) {
        const refused = await sent(vehicle, run, arrived);
        const others = newest.current.filter((one) => one.id !== run.id);
        keep(refused ? [...others, { ...run, refused }] : others);
      }
    } catch {
      // No connection: they wait.
    } finally {
      sending.current = false;
    }
  }, [vehicle, arrived, keep]);
  useEffect(() => {
    const again = () => void send();
    again();
    window.addEventListener("online", again);
    const timer = window.setInterval(() => newest.current.some((one) => !one.refused) && again(), AGAIN_MS);
    return () => {
      window.removeEventListener("online", again);
      window.clearInterval(timer);
    };
  }, [send]);
  return {
    logged: logged ?? null,
    count: list.data?.count ?? 0,
    away: list.data?.away ?? 0,
    more: hasMore
      ? async () => {
          const page = await pageOf(vehicle, logged?.at(-1)?.id);
          setOlder({ ...page, runs: [...(older?.runs ?? []), ...page.runs] });
        }
      : null,
    unread: !list.data && list.failureReason !== null,
    waiting,
    log: async (document, tried, own) => {
      const design = tried === null ? (own ?? present()) : null;
      const run = { id: newId(), document, design, tried, made_at: new Date().toISOString() };
      keep([...newest.current, run]);
      await send();
      const refused = newest.current.find((one) => one.id === run.id)?.refused ?? null;
      if (refused) keep(newest.current.filter((one) => one.id !== run.id));
      const known = queries
        .getQueryData<LogPage>(["runs", vehicle])
        ?.runs.find((query) => query.id === run.id);
      return { id: run.id, refused, run: known ?? null };
    },
    takeBack: (id) => keep(newest.current.filter((one) => one.id !== id)),
    change: async (run, patch) => {
      setTrouble("");
      try {
        arrived(await changed(vehicle, run, patch));
      } catch (error) {
        setTrouble(troubleText(error));
        void queries.invalidateQueries({ queryKey: ["runs", vehicle] });
      }
    },
    open: async (file) => {
      setTrouble("");
      try {
        const body = { file: JSON.parse(await file.text()) };
        const params = { params: { path: { vehicle } } };
        await answer(api.POST("/api/vehicles/{vehicle}/runs/file/", { ...params, body }));
        void queries.invalidateQueries({ queryKey: ["runs", vehicle] });
      } catch (error) {
        setTrouble(error instanceof SyntaxError ? "This is no JSON: open a runs file." : troubleText(error));
      }
    },
    trouble,
  };
}

const pageOf = (vehicle: string, before?: string) =>
  answer(
    api.GET("/api/vehicles/{vehicle}/runs/", {
      params: { path: { vehicle }, query: before ? { before } : {} },
    }),
  );

/** A page with a run that is new, or was changed. */
function withRun(page: LogPage, run: LoggedRun): LogPage {
  const before = page.runs.find((entry) => entry.id === run.id);
  const away = Number(run.put_away) - Number(before?.put_away ?? false);
  return {
    ...page,
    runs: byTime([run, ...page.runs.filter((entry) => entry.id !== run.id)]),
    count: page.count + (before ? 0 : 1) - away,
    away: page.away + away,
  };
}

function notIn(known: LoggedRun[], runs: LoggedRun[]): LoggedRun[] {
  const ids = new Set(known.map((run) => run.id));
  return runs.filter((run) => !ids.has(run.id));
}

/** Send one; the refusal where there is one. */
async function sent(
  vehicle: string,
  run: Waiting,
  arrived: (run: LoggedRun) => void,
): Promise<Refusal | null> {
  const { refused: _, ...body } = run;
  try {
    const asked = api.POST("/api/vehicles/{vehicle}/runs/", {
      params: { path: { vehicle } },
      body: { ...body, design: body.design as unknown as Record<string, unknown> | null },
    });
    arrived(await answer(asked));
    return null;
  } catch (error) {
    if (isRefusal(error)) return error.refusal;
    throw error;
  }
}

const changed = (vehicle: string, run: LoggedRun, patch: { document?: RunDocument; put_away?: boolean }) =>
  answer(
    api.PATCH("/api/vehicles/{vehicle}/runs/{run}/", {
      params: { path: { vehicle, run: run.id } },
      body: { base: run.version, ...patch },
    }),
  );

const byTime = (runs: LoggedRun[]) => [...runs].sort((a, b) => b.made_at.localeCompare(a.made_at));

/** What the runs show: asked again when a run or the saved design has changed, the last answer staying meanwhile. */
export function useLearnt(runs: LoggedRun[] | null) {
  const { vehicle, saved } = usePlace();
  const state = runs?.map((run) => `${run.id} ${run.version}`).join() ?? "";
  const last = useRef(saved);
  if (saved) last.current = saved;
  return useQuery({
    queryKey: ["learnt", vehicle, last.current, state],
    queryFn: () => answer(api.GET("/api/vehicles/{vehicle}/learnt/", { params: { path: { vehicle } } })),
    enabled: runs !== null,
    placeholderData: (old) => old,
    staleTime: Number.POSITIVE_INFINITY,
  });
}
