/** A part of the bin that is taken, or another kind of stage: what that changes the core says. */
import { useMutation } from "@tanstack/react-query";
import { answer, api, troubleText } from "../api/client";
import type { PartDocument } from "./bin/bin";
import { withChanges } from "./changes";
import { useEdit } from "./context";
import type { DesignDocument } from "./document";

interface Choice {
  path: string;
  /** A part of the bin, and the wheel there that it becomes. */
  part?: PartDocument;
  member?: string;
  /** Or another kind of stage. */
  kind?: string;
}

interface Making {
  make: (choice: Choice, then?: () => void) => void;
  /** Why the last choice could not be made. */
  trouble: string | null;
}

/** A way to take a part of the bin, or to turn a stage into another kind. */
export function useChoice(): Making {
  const { edit, present } = useEdit();
  const asking = useMutation({
    mutationFn: (choice: Choice) => ask(present(), choice),
    onSuccess: ({ changes }) => edit((old) => withChanges(old, changes)),
  });
  return {
    make: (choice, then) => asking.mutate(choice, { onSuccess: then }),
    trouble: asking.error ? troubleText(asking.error) : null,
  };
}

async function ask(present: DesignDocument, { path, part, member = "", kind = "" }: Choice) {
  const document = present as unknown as Record<string, unknown>;
  if (part) return await answer(api.POST("/api/changes/part/", { body: { document, path, member, part } }));
  return await answer(api.POST("/api/changes/kind/", { body: { document, path, kind } }));
}
