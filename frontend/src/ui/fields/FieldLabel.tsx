import { Box } from "@chakra-ui/react";

/** What stands over a field; a click on it goes there. */
export function FieldLabel({ id, children }: { id: string; children: string }) {
  return (
    <Box as="label" {...{ htmlFor: id }} display="block" fontSize="sm" color="ink.second" lineHeight="1.3">
      {children}
    </Box>
  );
}
