/** A template as the core makes it: a file in base64, with how many holes and sheets it has. */
import { answer, api, type Template } from "../../api/client";
import { insistently } from "../../api/pieces";
import type { DesignDocument } from "../../document/document";
import { counted } from "../../words/counted";

export interface Asked {
  document: DesignDocument;
  sheet: string;
  shaft: string;
  behind: string;
}

export async function fetchTemplate(
  workshop: string,
  kind: string,
  { document, sheet, shaft, behind }: Asked,
  signal: AbortSignal,
): Promise<Template> {
  const ask = () =>
    answer(
      api.POST("/api/workshops/{workshop}/fit/template/{kind}/", {
        params: { path: { workshop, kind } },
        body: {
          document: document as unknown as Record<string, unknown>,
          sheet: sheet as "a4" | "letter",
          shaft,
          behind,
        },
        signal,
      }),
    );
  return await insistently(ask, () => signal.aborted);
}

/** "plate.pdf: 60 holes on 2 sheets". */
export function told({ name, type, holes, sheets }: Template): string {
  const paper = type === "application/pdf" ? ` on ${counted(sheets, "sheet")}` : "";
  return `${name}: ${counted(holes, "hole")}${paper}`;
}
