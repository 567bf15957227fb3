import { Box, Button, Heading } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { ErrorBoundary } from "react-error-boundary";
import { useLocation } from "react-router";

/** What goes wrong within it takes nothing else along, and is forgotten on the way to another place. */
export function Guarded({ children }: { children: ReactNode }) {
  const { pathname } = useLocation();
  return (
    <ErrorBoundary FallbackComponent={Mishap} resetKeys={[pathname]}>
      {children}
    </ErrorBoundary>
  );
}

function Mishap({ error }: { error: unknown }) {
  return (
    <Box role="alert" maxW="36rem" mx="auto" my="6" p="5" bg="panel" borderWidth="1px" borderColor="line">
      <Heading as="h2" size="md" mb="2">
        This part of the page cannot be shown
      </Heading>
      The server may have a newer version by now, or the page has a fault. What you typed is kept.
      <Box my="3">
        <Button variant="solid" onClick={() => window.location.reload()}>
          Load the page again
        </Button>
      </Box>
      <Box fontSize="sm" color="ink.second" fontFamily="mono" overflowWrap="anywhere">
        {error instanceof Error ? error.message : String(error)}
      </Box>
    </Box>
  );
}
