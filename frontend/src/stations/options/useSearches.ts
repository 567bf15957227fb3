/** Before a search, and while and after it runs: what the server says of it. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useState } from "react";
import { answer, api, type SearchAnswer } from "../../api/client";
import { usePlace } from "../../document/context";

const POLL_MS = 500;
type Request = Record<string, unknown>;

/** Pictures and counts of what would be searched. */
export function useSurvey(request: Request) {
  const { workshop } = usePlace();
  const asked = useDeferredValue(request);
  return useQuery({
    queryKey: ["survey", workshop, asked],
    queryFn: () =>
      answer(
        api.POST("/api/workshops/{workshop}/searches/survey/", {
          params: { path: { workshop } },
          body: { request: asked },
        }),
      ),
    placeholderData: (old) => old,
    staleTime: 0,
    retry: false,
  });
}

/** The newest searches for a vehicle. */
export function useSearchList(workshop: string, vehicle: string) {
  return useQuery({
    queryKey: ["searches", vehicle],
    queryFn: () =>
      answer(
        api.GET("/api/workshops/{workshop}/searches/", {
          params: { path: { workshop }, query: { vehicle } },
        }),
      ),
  });
}

export interface Searches {
  /** The search on display, none before the first. */
  shown: SearchAnswer | undefined;
  earlier: SearchAnswer["search"][];
  start: (request: Request) => void;
  cancel: () => void;
  open: (id: string) => void;
  trouble: Error | null;
  starting: boolean;
}

/** The searches for this vehicle: the newest one is shown, earlier ones can be opened again. */
export function useSearches(): Searches {
  const { workshop, vehicle } = usePlace();
  const queries = useQueryClient();
  const [chosen, setChosen] = useState<string | null>(null);
  const list = useSearchList(workshop, vehicle);
  const id = chosen ?? list.data?.[0]?.id ?? null;
  const entry = useQuery({
    queryKey: ["search", id],
    queryFn: () => answer(api.GET("/api/searches/{search}/", { params: { path: { search: id as string } } })),
    enabled: id !== null,
    staleTime: Number.POSITIVE_INFINITY,
    refetchInterval: (query) => (query.state.data && isOpen(query.state.data) ? POLL_MS : false),
  });
  // The figure of the station is that of the newest search which has ended.
  const state = entry.data?.search.state;
  useEffect(() => {
    if (state === "done") void queries.invalidateQueries({ queryKey: ["searches", vehicle] });
  }, [state, vehicle, queries]);
  const start = useMutation({
    mutationFn: (request: Request) =>
      answer(
        api.POST("/api/workshops/{workshop}/searches/", {
          params: { path: { workshop } },
          body: { request, vehicle },
        }),
      ),
    onSuccess: (created) => {
      queries.setQueryData(["search", created.search.id], created);
      setChosen(created.search.id);
      // The first rows come with the answer, the others after they have been painted.
      if (created.options?.whole === false)
        void queries.invalidateQueries({ queryKey: ["search", created.search.id] });
      void queries.invalidateQueries({ queryKey: ["searches", vehicle] });
    },
  });
  const cancel = useMutation({
    mutationFn: (search: string) =>
      answer(
        api.PATCH("/api/searches/{search}/", {
          params: { path: { search } },
          body: { state: "cancelled" },
        }),
      ),
    onSuccess: (state) => queries.invalidateQueries({ queryKey: ["search", state.id] }),
  });
  return {
    shown: entry.data,
    earlier: list.data ?? [],
    start: start.mutate,
    cancel: () => id && cancel.mutate(id),
    open: setChosen,
    trouble: start.error ?? cancel.error ?? entry.error,
    starting: start.isPending,
  };
}

export function isOpen(answer: SearchAnswer): boolean {
  return answer.search.state === "waiting" || answer.search.state === "running";
}
