/** The plan of a vehicle: as typed and worked out, kept by the server; ticks are shown before it answers. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type KeptPlan, troubleText } from "../../../api/client";
import { usePlace } from "../../../document/context";
import type { DesignDocument } from "../../../document/document";

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
  save: (document: PlanDocument) => Promise<void>;
  /** Tick a step off with the run that it became, or take the tick away. */
  tick: (key: string, run: string | null) => Promise<void>;
  trouble: string;
}

export function usePlan(): PlanHeld {
  const { vehicle } = usePlace();
  const queries = useQueryClient();
  const [trouble, setTrouble] = useState("");
  const key = ["plan", vehicle];
  const params = { params: { path: { vehicle } } };
  const plan = useQuery({
    queryKey: key,
    queryFn: () => answer(api.GET("/api/vehicles/{vehicle}/plan/", params)),
  });
  const kept = plan.data;
  const document = (kept?.document ?? null) as PlanDocument | null;
  const save = async (next: PlanDocument) => {
    setTrouble("");
    const body = { base: kept?.version ?? 0, document: next as unknown as Record<string, unknown> };
    try {
      queries.setQueryData(key, await answer(api.PUT("/api/vehicles/{vehicle}/plan/", { ...params, body })));
    } catch (error) {
      setTrouble(troubleText(error));
      void queries.invalidateQueries({ queryKey: key });
    }
  };
  return {
    kept,
    document,
    save,
    tick: async (step, run) => {
      if (!document || !kept) return;
      const { [step]: _, ...others } = document.done ?? {};
      const done = run === null ? others : { ...others, [step]: run };
      // The hand sees its tick at once; what the server says replaces it.
      queries.setQueryData<KeptPlan>(key, {
        ...kept,
        document: { ...document, done } as unknown as Record<string, unknown>,
        planned: kept.planned && {
          ...kept.planned,
          steps: kept.planned.steps.map((one) => (one.key === step ? { ...one, done: run ?? "" } : one)),
        },
      });
      await save({ ...document, done });
    },
    trouble,
  };
}
