import { Box, Button, Flex, Heading, Input, Text } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api } from "../../api/client";

/** Leaving a workshop, and closing it for everybody. */
export function Going({ workshop, name, owner }: { workshop: string; name: string; owner: boolean }) {
  const path = { params: { path: { workshop } } };
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [typed, setTyped] = useState("");
  const home = async () => {
    await queries.invalidateQueries({ queryKey: ["workshops"] });
    await navigate("/");
  };
  const leave = useMutation({
    mutationFn: () => answer(api.POST("/api/workshops/{workshop}/leaving/", path)),
    onSuccess: home,
  });
  const close = useMutation({
    mutationFn: () =>
      answer(api.POST("/api/workshops/{workshop}/closing/", { ...path, body: { name: typed } })),
    onSuccess: home,
  });
  const trouble = leave.error ?? close.error;
  return (
    <Box as="section" mt="8">
      <Heading as="h2" size="md" mb="2">
        Leave
      </Heading>
      <Button onClick={() => leave.mutate()} loading={leave.isPending}>
        Leave this workshop
      </Button>
      {owner && (
        <form
          onSubmit={(event: FormEvent) => {
            event.preventDefault();
            close.mutate();
          }}
        >
          <Text color="ink.second" fontSize="sm" mt="4" mb="1">
            Or close it for everybody. Nothing in it is lost: an owner can open it again from their account.
            To be sure, type its name.
          </Text>
          <Flex gap="2" wrap="wrap">
            <Input
              aria-label="Name of the workshop to close"
              placeholder={name}
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
              flex="1"
              minW="12rem"
              fontFamily="body"
            />
            <Button type="submit" disabled={typed.trim() !== name.trim()} loading={close.isPending}>
              Close the workshop
            </Button>
          </Flex>
        </form>
      )}
      {trouble && (
        <Text role="alert" color="brick" mt="2">
          {trouble.message}
        </Text>
      )}
    </Box>
  );
}
