/** Files that the server makes when it is asked for them. */
import { answer, api } from "./client";
import { insistently } from "./pieces";

/** Fetches a file; asks again while the server has its hands full. */
export function fetchFile(href: string, stopped: () => boolean): Promise<{ name: string; blob: Blob }> {
  return insistently(async () => {
    const reply = await api.GET(href as never, { parseAs: "blob" } as never);
    const blob = await answer(Promise.resolve(reply as { data?: Blob; error?: unknown; response: Response }));
    return { name: nameIn(reply.response.headers.get("Content-Disposition")), blob };
  }, stopped);
}

function nameIn(disposition: string | null): string {
  return /filename="([^"]+)"/.exec(disposition ?? "")?.[1] ?? "file";
}
