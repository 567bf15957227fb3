/** The runs of a vehicle as the server keeps them, the newest first. */
import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";

/** @param every ms after which it is asked again, for what others log; false where nobody looks at them. */
export function useRunList(vehicle: string, every: number | false = false) {
  return useQuery({
    queryKey: ["runs", vehicle],
    queryFn: () => answer(api.GET("/api/vehicles/{vehicle}/runs/", { params: { path: { vehicle } } })),
    refetchInterval: every,
  });
}
