/** The day as it is drawn: asked for once the bars are painted, the last one while the next is under way. */
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api, type LoadDay, type Loads } from "../../api/client";
import { useEdit, useFigures } from "../../document/context";
import { useAfterPaint } from "../../document/useAfterPaint";

/** @param loads what the bars show; the day is that of the design as it is when they are painted. */
export function useDay(loads: Loads): LoadDay | null {
  const { present } = useEdit();
  const { held } = useFigures();
  const [document, setDocument] = useState(present);
  const painted = useAfterPaint(loads, held ? Number.POSITIVE_INFINITY : 0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked when the bars are painted, not with each key press
  useEffect(() => setDocument(present()), [painted, present]);
  const query = useQuery({
    queryKey: ["loads day", document],
    queryFn: ({ signal }) => {
      const body = { document: document as unknown as Record<string, unknown> };
      return answer(api.POST("/api/loads/day/", { body, signal }));
    },
    placeholderData: (old) => old,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
  return query.data ?? null;
}
