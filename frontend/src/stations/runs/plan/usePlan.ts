/** The plan of a vehicle: as typed and worked out, kept by the server; ticks are shown at once, connection or not. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { answer, api, isRefusal, type KeptPlan, troubleText } from "../../../api/client";
import { upon } from "../../../api/upon";
import { usePlace } from "../../../document/context";
import type { DesignDocument } from "../../../document/document";
import { useOutbox } from "../../../document/useOutbox";
import { keptKey } from "../../../ui/kept";

export interface PlanDocument {
  format: "ydrometer-plan";
  version: 1;
  gearings: { name: string; design: DesignDocument }[];
  measures: Record<string, unknown>[];
  rounds: number;
  readings: number;
  seldom?: boolean;
  swap?: string;
  done?: Record<string, string>;
}

export interface PlanHeld {
  kept: KeptPlan | undefined;
  document: PlanDocument | null;
  /** Whether it is kept now; else `trouble` says why not. */
  save: (document: PlanDocument) => Promise<boolean>;
  /** Tick a step off with the run that it became, or take the tick away; kept on the device until the server has it. */
  tick: (step: string, run: string | null) => void;
  trouble: string;
}

/** A step that is done, and the run that it became; none where it is not done any more. */
interface Tick {
  step: string;
  run: string | null;
}

export function usePlan(): PlanHeld {
  const { account, vehicle } = usePlace();
  const queries = useQueryClient();
  const [trouble, setTrouble] = useState("");
  const params = { params: { path: { vehicle } } };
  const request = {
    queryKey: ["plan", vehicle],
    queryFn: () => answer(api.GET("/api/vehicles/{vehicle}/plan/", params)),
  };
  const plan = useQuery(request);
  const put = async (base: number, next: PlanDocument) => {
    const body = { base, document: next as unknown as Record<string, unknown> };
    const reply = await answer(api.PUT("/api/vehicles/{vehicle}/plan/", { ...params, body }));
    queries.setQueryData(request.queryKey, reply);
  };
  const tickUpon = async (kept: KeptPlan, ticks: Tick[]) => {
    const next = documentOf(withTicks(kept, ticks));
    if (next) await put(kept.version, next);
  };
  const { waiting, add } = useOutbox<Tick>(keptKey("plan", account, vehicle), async (ticks) => {
    try {
      const known = await queries.ensureQueryData(request);
      await upon(
        known,
        () => queries.fetchQuery(request),
        (kept) => tickUpon(kept, ticks),
      );
    } catch (error) {
      if (!isRefusal(error)) throw error;
      setTrouble(troubleText(error));
      void queries.invalidateQueries({ queryKey: request.queryKey });
    }
  });
  const kept = useMemo(() => plan.data && withTicks(plan.data, waiting), [plan.data, waiting]);
  return {
    kept,
    document: documentOf(kept),
    save: async (next) => {
      setTrouble("");
      try {
        await put(plan.data?.version ?? 0, next);
        return true;
      } catch (error) {
        setTrouble(troubleText(error));
        void queries.invalidateQueries({ queryKey: request.queryKey });
        return false;
      }
    },
    tick: (step, run) => {
      setTrouble("");
      add({ step, run });
    },
    trouble,
  };
}

const documentOf = (kept: KeptPlan | undefined) => (kept?.document ?? null) as PlanDocument | null;

/** Of steps that another plan does not have any more nothing is ticked. */
function withTicks(kept: KeptPlan, ticks: Tick[]): KeptPlan {
  const { document, planned } = kept;
  if (!document || !planned || ticks.length === 0) return kept;
  const runs = new Map(ticks.map(({ step, run }) => [step, run ?? ""]));
  const steps = planned.steps.map((step) => ({ ...step, done: runs.get(step.key) ?? step.done }));
  const done = Object.fromEntries(steps.filter((step) => step.done).map((step) => [step.key, step.done]));
  return { ...kept, document: { ...document, done }, planned: { ...planned, steps } };
}
