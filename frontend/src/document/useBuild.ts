/** The steps of the saved design with what was done, kept up with what others do. */
import { queryOptions, useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { answer, api } from "../api/client";
import { clockNow } from "../ui/when";

/** Others' ticks are here within two seconds. */
const OFTEN_MS = 1500;
const SELDOM_MS = 30_000;

/** Something that changes with all that was said of a vehicle's steps and parts. */
export const pulseOf = (vehicle: string, often: boolean) =>
  queryOptions({
    queryKey: ["pulse", vehicle],
    queryFn: () => answer(api.GET("/api/vehicles/{vehicle}/build/pulse/", { params: { path: { vehicle } } })),
    refetchInterval: often ? OFTEN_MS : SELDOM_MS,
  });

/** @param often whether somebody looks at it. */
export function useBuild(vehicle: string, often: boolean) {
  const pulse = useQuery(pulseOf(vehicle, often)).data?.pulse;
  const build = useQuery({
    queryKey: ["build", vehicle],
    queryFn: () =>
      answer(
        api.GET("/api/vehicles/{vehicle}/build/", {
          params: { path: { vehicle }, query: { now: clockNow() } },
        }),
      ),
    // While steps wait for glue, the clock alone changes what is next.
    refetchInterval: SELDOM_MS,
  });
  const { data, refetch } = build;
  // An answer that was on its way when something was said may be older than that: then it is asked once more.
  useEffect(() => {
    if (pulse !== undefined && data !== undefined && data.pulse !== pulse)
      void refetch({ cancelRefetch: false });
  }, [pulse, data, refetch]);
  return build;
}
