import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import { useWorkshops } from "../../api/workshops";

/** Workshops that one has closed, to be opened again. */
export function ClosedWorkshops() {
  const queries = useQueryClient();
  const workshops = useWorkshops();
  const reopen = useMutation({
    mutationFn: (workshop: string) =>
      answer(api.DELETE("/api/workshops/{workshop}/closing/", { params: { path: { workshop } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["workshops"] }),
  });
  const closed = workshops.data?.filter((workshop) => workshop.closed_at !== null) ?? [];
  if (closed.length === 0) return null;
  return (
    <>
      <Heading as="h2" size="md" mt="8" mb="1">
        Closed workshops
      </Heading>
      {closed.map((workshop) => (
        <Flex key={workshop.id} gap="3" align="center" py="1">
          <Box flex="1">{workshop.name}</Box>
          <Button size="sm" onClick={() => reopen.mutate(workshop.id)}>
            Open again
          </Button>
        </Flex>
      ))}
    </>
  );
}
