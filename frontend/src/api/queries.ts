/** How the server is asked: again where it did not answer, and whatever the browser believes of the network. */
import { QueryClient } from "@tanstack/react-query";
import { isPassing } from "./client";
import { pause, whenBack } from "./connection";

const MOST_TRIES = 6;
/** A server on this computer answers without any network, and what cannot be sent is to say so at once. */
const ALWAYS = { networkMode: "always" } as const;

export function makeQueries(): QueryClient {
  const queries = new QueryClient({
    defaultOptions: {
      queries: {
        ...ALWAYS,
        retry: worthAsking,
        retryDelay: pause,
        refetchOnWindowFocus: false,
        refetchOnReconnect: true,
      },
      mutations: ALWAYS,
    },
  });
  whenBack(() => void queries.invalidateQueries({ predicate: (query) => query.state.status === "error" }));
  return queries;
}

/** A refusal stays one; where the server did not answer, it is asked again with growing pauses. */
function worthAsking(tries: number, error: Error): boolean {
  return tries < MOST_TRIES && isPassing(error);
}
