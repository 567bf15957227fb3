import { Button } from "@chakra-ui/react";

/** The steps on paper. */
export function BookletButton() {
  return (
    <Button size="xs" onClick={() => window.print()}>
      Print
    </Button>
  );
}
