/** Which parts of the bin could stand in a stage; asked anew when the stage's kind or tooth size changes. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Fit } from "../../../api/client";
import { useDocument, useEdit, usePlace } from "../../../document/context";
import { at, type DesignDocument, type Stage } from "../../../document/document";

const SIZES = ["kind", "module", "diametral_pitch", "pitch"];
const NONE: Fit[] = [];

function fitsKey(workshop: string, document: DesignDocument, path: string) {
  const stage = at(document, path) as Stage | undefined;
  return ["fits", workshop, stage && SIZES.map((key) => stage[key])];
}

export function useFits(path: string): Fit[] {
  const { workshop } = usePlace();
  const document = useDocument();
  const query = useQuery({
    queryKey: fitsKey(workshop, document, path),
    queryFn: () => askedFor(workshop, document, path),
    enabled: at(document, path) !== undefined,
    staleTime: 0,
    retry: false,
  });
  return query.data ?? NONE;
}

/**
 * What the panel has asked for a stage, looked up when a key is pressed: the drawing shows figures, and is not to be
 * painted once more for each change of the document.
 */
export function useKnownFits(): (path: string) => Fit[] {
  const { workshop } = usePlace();
  const { present } = useEdit();
  const queries = useQueryClient();
  return (path) => queries.getQueryData<Fit[]>(fitsKey(workshop, present(), path)) ?? NONE;
}

async function askedFor(workshop: string, document: DesignDocument, path: string): Promise<Fit[]> {
  const reply = await answer(
    api.POST("/api/workshops/{workshop}/parts/fits/", {
      params: { path: { workshop } },
      body: { document: document as unknown as Record<string, unknown>, path },
    }),
  );
  return reply.fits;
}

/** The next size in the bin, none beyond its ends; where the bin has no such part, the next size of any. */
export function nextSize(fits: Fit[], present: number, by: number): number {
  const sizes = [...new Set(fits.map((fit) => fit.size))];
  if (sizes.length === 0) return present + by;
  const beyond =
    by > 0 ? sizes.filter((size) => size > present) : sizes.filter((size) => size < present).reverse();
  return beyond[Math.min(Math.abs(by), beyond.length) - 1] ?? present;
}
