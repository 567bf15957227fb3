import { Box } from "@chakra-ui/react";
import type { Fault } from "../../api/client";
import { StandingMark } from "../StandingMark";

/** What is wrong with a field, and what would be right, under it. */
export function FaultText({ id, fault }: { id: string; fault: Fault }) {
  return (
    <Box id={id} role="alert" fontSize="xs" color="brick" display="flex" gap="1" alignItems="center">
      <StandingMark standing="misses" />
      <span>
        {fault.problem}: {fault.remedy}
      </span>
    </Box>
  );
}
