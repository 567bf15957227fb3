import { Box } from "@chakra-ui/react";
import { Link } from "react-router";

/** To exercises of an idea, from the place where it belongs. */
export function PractiseThis({ idea }: { idea: string }) {
  return (
    <Box asChild fontSize="xs" color="ink.second" textDecoration="underline" data-screen-only>
      <Link to={`/practice?idea=${encodeURIComponent(idea)}`}>Practise {idea}</Link>
    </Box>
  );
}
