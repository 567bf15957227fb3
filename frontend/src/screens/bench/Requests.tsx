import { Box, Button, Flex } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, troubleText } from "../../api/client";

/** Workshops that ask one to join, by name. */
export function Requests() {
  const queries = useQueryClient();
  const requests = useQuery({
    queryKey: ["requests"],
    queryFn: () => answer(api.GET("/api/invitations/")),
    staleTime: 0,
  });
  const decide = useMutation({
    mutationFn: ({ id, accept }: { id: string; accept: boolean }) =>
      answer(
        api.POST("/api/invitations/{invitation}/", {
          params: { path: { invitation: id } },
          body: { accept },
        }),
      ),
    onSettled: () =>
      Promise.all(["requests", "workshops"].map((key) => queries.invalidateQueries({ queryKey: [key] }))),
  });
  const asked = requests.data?.map((request) => (
    <Flex
      key={request.id}
      role="status"
      gap="3"
      align="center"
      wrap="wrap"
      mb="4"
      px="4"
      py="2"
      bg="copper.wash"
      data-request
    >
      <Box flex="1">
        <b>{request.author ?? "Somebody"}</b> asks you to join <b>{request.workshop}</b> as {request.role}.
      </Box>
      <Button size="sm" variant="solid" onClick={() => decide.mutate({ id: request.id, accept: true })}>
        Join
      </Button>
      <Button size="sm" variant="outline" onClick={() => decide.mutate({ id: request.id, accept: false })}>
        Decline
      </Button>
    </Flex>
  ));
  return (
    <>
      {asked}
      {decide.error && (
        <Box role="alert" color="brick" mb="4">
          {troubleText(decide.error)}
        </Box>
      )}
    </>
  );
}
