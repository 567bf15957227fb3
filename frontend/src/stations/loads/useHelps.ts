/** What would relieve a row of the chosen part: asked for once a row is near or over, and tried by a click or a key. */
import { useQuery } from "@tanstack/react-query";
import { useCallback } from "react";
import { answer, api, type LoadHelp, type LoadRow } from "../../api/client";
import { useDocument, useEdit, useFigures } from "../../document/context";
import { withValues } from "../../document/document";

const NONE: LoadHelp[] = [];

/** @param row null where none needs relief. */
export function useHelps(row: LoadRow | null): LoadHelp[] {
  const document = useDocument();
  const query = useQuery({
    queryKey: ["loads helps", document, row?.check, row?.path, row?.member, row?.moment],
    queryFn: ({ signal }) => {
      const { check, path, member, moment } = row as LoadRow;
      const body = { document: document as unknown as Record<string, unknown>, check, path, member, moment };
      return answer(api.POST("/api/loads/helps/", { body, signal }));
    },
    enabled: row !== null,
    // Those of the design before are true of that one alone.
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
  return query.data ?? NONE;
}

/** Puts a help into the design; where no mark is set the design before becomes it, so that the difference is seen. */
export function useTry(): (help: LoadHelp) => void {
  const { edit, setMark } = useEdit();
  const { marked } = useFigures();
  return useCallback(
    (help) => {
      if (!marked) setMark();
      edit((old) => withValues(old, valuesOf(help)));
    },
    [edit, marked, setMark],
  );
}

const valuesOf = (help: LoadHelp): Record<string, unknown> =>
  Object.fromEntries(help.changes.map(({ path, value }) => [path, JSON.parse(value)]));
