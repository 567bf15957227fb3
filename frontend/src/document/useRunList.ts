/** The runs of a vehicle as the server keeps them, the newest first. */
import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";

export function useRunList(vehicle: string) {
  return useQuery({
    queryKey: ["runs", vehicle],
    queryFn: () => answer(api.GET("/api/vehicles/{vehicle}/runs/", { params: { path: { vehicle } } })),
  });
}
