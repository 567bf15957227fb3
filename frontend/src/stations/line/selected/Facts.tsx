import { Box, Flex } from "@chakra-ui/react";

/** Names and values in rows; a row without a value is left out. */
export function Facts({ rows }: { rows: [string, string | null | undefined][] }) {
  return (
    <Box as="dl" fontSize="sm">
      {rows.map(
        ([name, value]) =>
          value && (
            <Flex key={name} justify="space-between" gap="3" py="4px" borderTopWidth="1px" borderColor="line">
              <dt>{name}</dt>
              <Box as="dd" fontFamily="mono" textAlign="right" whiteSpace="nowrap">
                {value}
              </Box>
            </Flex>
          ),
      )}
    </Box>
  );
}
