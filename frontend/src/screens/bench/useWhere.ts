import { useMutation, useQueryClient } from "@tanstack/react-query";
import { answer, api, type VehicleCard } from "../../api/client";

/** On the bench, in the drawer, or in the drawer for a month and then gone for good. */
export type Where = { put_away: boolean } | { delete: true };

export function useWhere(vehicle: VehicleCard) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (where: Where) =>
      answer(
        api.PATCH("/api/vehicles/{vehicle}/", { params: { path: { vehicle: vehicle.id } }, body: where }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["vehicles", vehicle.workshop] }),
  });
}
