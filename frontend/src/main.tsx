import "@fontsource-variable/atkinson-hyperlegible-next";
import "@fontsource-variable/atkinson-hyperlegible-mono";
import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { RefusedError } from "./api/client";
import { mayPass, pause, whenBack } from "./api/connection";
import { App } from "./app/App";
import { system } from "./theme/system";

const queries = new QueryClient({
  defaultOptions: { queries: { retry: worthAsking, retryDelay: pause, refetchOnWindowFocus: false } },
});

/** A refusal stays one; where the server did not answer, it is asked again with growing pauses. */
function worthAsking(tries: number, error: Error): boolean {
  return error instanceof RefusedError ? mayPass(error.status) && tries < 6 : tries < 6;
}
whenBack(() => void queries.invalidateQueries({ predicate: (query) => query.state.status === "error" }));

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <ChakraProvider value={system}>
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </QueryClientProvider>
    </ChakraProvider>
  </StrictMode>,
);
