/** Of each vehicle of a workshop that was run: how often, and the last run. */
import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";

export function useLastRuns(workshop: string) {
  return useQuery({
    queryKey: ["last-runs", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/runs/", { params: { path: { workshop } } })),
    staleTime: 0,
  });
}
