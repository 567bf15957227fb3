import { Box } from "@chakra-ui/react";

/** Why something failed, told at once to who listens; nothing where it did not. */
export function Trouble({ text }: { text: string | null | undefined }) {
  if (!text) return null;
  return (
    <Box role="alert" color="brick" fontSize="sm" mt="1">
      {text}
    </Box>
  );
}
