/** A template as the server writes it: a file, not an answer to be read. */
import { answer, api } from "../../api/client";
import type { DesignDocument } from "../../document/document";
import { fileName } from "../../document/files";

interface Asked {
  document: DesignDocument;
  sheet: string;
  shaft: string;
}

export async function fetchTemplate(
  workshop: string,
  suffix: string,
  { document, sheet, shaft }: Asked,
): Promise<{ name: string; blob: Blob }> {
  const blob = (await answer(
    api.POST("/api/workshops/{workshop}/fit/template/{kind}/", {
      params: { path: { workshop, kind: suffix } },
      body: {
        document: document as unknown as Record<string, unknown>,
        sheet: sheet as "a4" | "letter",
        shaft,
      },
      parseAs: "blob",
    }),
  )) as unknown as Blob;
  const name = fileName(document.name ?? "");
  return { name: `${name}-${shaft ? "adapter" : "plate"}.${suffix}`, blob };
}
