import { useMutation, useQueryClient } from "@tanstack/react-query";
import { answer, api, type VehicleCard } from "../../api/client";

/** Off the bench, or back onto it; nothing of it is lost. */
export function usePutAway(vehicle: VehicleCard) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () =>
      answer(
        api.PATCH("/api/vehicles/{vehicle}/", {
          params: { path: { vehicle: vehicle.id } },
          body: { put_away: !vehicle.put_away },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["vehicles", vehicle.workshop] }),
  });
}

/** Out of the drawer for good, in a month. */
export function useDelete(vehicle: VehicleCard) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () =>
      answer(
        api.PATCH("/api/vehicles/{vehicle}/", {
          params: { path: { vehicle: vehicle.id } },
          body: { delete: true },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["vehicles", vehicle.workshop] }),
  });
}
