import { queryOptions, useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { answer, api } from "./client";

/** All workshops that one is in, those that are closed too. */
export function useWorkshops() {
  return useQuery({
    queryKey: ["workshops"],
    queryFn: () => answer(api.GET("/api/workshops/")),
    // Several parts of a screen ask for them while it is painted.
    staleTime: 2000,
  });
}

/** How the vehicles of a workshop are asked for. */
export const vehiclesQuery = (workshop: string) =>
  queryOptions({
    queryKey: ["vehicles", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/vehicles/", { params: { path: { workshop } } })),
  });

/** The workshops that are open, and the one at hand: which the address names, else where one stood last. */
export function useWorkshopAtHand() {
  const workshops = useWorkshops();
  const [search] = useSearchParams();
  const open = workshops.data?.filter((row) => row.closed_at === null) ?? [];
  const chosen = open.find((one) => one.id === search.get("workshop")) ?? open[0];
  return { open, chosen, homeless: workshops.isSuccess && !chosen };
}
