import { Box, Flex, Heading } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";

/** How much of its room a workshop uses, told before it is full. */
export function Usage({ workshop }: { workshop: string }) {
  const usage = useQuery({
    queryKey: ["usage", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/usage/", { params: { path: { workshop } } })),
  });
  return (
    <Box as="section" mt="8">
      <Heading as="h2" size="md" mb="1">
        Room
      </Heading>
      {usage.data?.map(({ what, unit, used, most, near }) => (
        <Flex key={what} gap="3" py="1" color={near ? "brick" : undefined} data-usage={what}>
          <Box flex="1">{what}</Box>
          <Box fontFamily="mono">
            {unit ? `${megabytes(used)} of ${megabytes(most)} MB` : `${used} of ${most}`}
          </Box>
        </Flex>
      ))}
      <Box fontSize="sm" color="ink.second">
        Of revisions without a name all of the last day are kept, one an hour of the last week, and one a day
        of what is older. Those with a name stay.
      </Box>
    </Box>
  );
}

const megabytes = (bytes: number) => (bytes / 1e6).toFixed(bytes < 1e6 ? 2 : 0);
