/** Another design evaluated beside the present one, for what it would do; null while it is being asked for. */
import { useQuery } from "@tanstack/react-query";
import { answer, api, type Live } from "../../api/client";
import type { DesignDocument } from "../../document/document";

export function useWhatIf(document: DesignDocument | null): Live | null {
  const query = useQuery({
    queryKey: ["what if", document],
    queryFn: () =>
      answer(api.POST("/api/live/", { body: { document: document as unknown as Record<string, unknown> } })),
    enabled: document !== null,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
    retry: false,
  });
  return query.data ?? null;
}
