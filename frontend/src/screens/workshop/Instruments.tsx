import { Box, Button, Flex, Heading, Input } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, troubleText } from "../../api/client";
import { moment } from "../../ui/when";
import { counted } from "../../words/counted";

/** Tokens with which instruments send readings, for owners: made, told once, taken back. */
export function Instruments({ workshop }: { workshop: string }) {
  const queries = useQueryClient();
  const params = { params: { path: { workshop } } };
  const tokens = useQuery({
    queryKey: ["tokens", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/tokens/", params)),
  });
  const [name, setName] = useState("");
  const again = () => queries.invalidateQueries({ queryKey: ["tokens", workshop] });
  const make = useMutation({
    mutationFn: () => answer(api.POST("/api/workshops/{workshop}/tokens/", { ...params, body: { name } })),
    onSuccess: () => {
      setName("");
      return again();
    },
  });
  const revoke = useMutation({
    mutationFn: (token: string) =>
      answer(
        api.DELETE("/api/workshops/{workshop}/tokens/{token}/", { params: { path: { workshop, token } } }),
      ),
    onSuccess: again,
  });
  const trouble = make.error ?? revoke.error;
  return (
    <Box as="section" aria-labelledby="instruments" mt="8" data-instruments>
      <Heading as="h2" id="instruments" size="md">
        Instruments
      </Heading>
      <Box color="ink.second" fontSize="sm" mb="2">
        A timing gate or counter of your own may log runs with a token, and do nothing else.
        docs/instruments.md says how.
      </Box>
      <Box as="ul" listStyleType="none" p="0">
        {tokens.data?.map((token) => (
          <Flex as="li" key={token.id} gap="3" py="1" align="center" borderTopWidth="1px" borderColor="line">
            <Box flex="1">{token.name}</Box>
            <Box fontSize="sm" color="ink.second">
              {token.used_at
                ? `${counted(token.uses, "time")}, last ${moment(token.used_at)}`
                : "not used yet"}
            </Box>
            <Button size="xs" onClick={() => revoke.mutate(token.id)}>
              Take back
            </Button>
          </Flex>
        ))}
      </Box>
      <Flex
        asChild
        gap="2"
        mt="2"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) make.mutate();
        }}
      >
        <form>
          <Input
            aria-label="What the instrument is called"
            placeholder="gates by the hall door"
            fontFamily="body"
            maxW="280px"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <Button type="submit" disabled={!name.trim() || make.isPending}>
            Make a token
          </Button>
        </form>
      </Flex>
      {make.data && (
        <Box role="status" mt="2" p="2" bg="spruce.wash" data-secret>
          It has to send this, which is told only now:
          <Box fontFamily="mono" overflowWrap="anywhere" userSelect="all">
            {make.data.secret}
          </Box>
        </Box>
      )}
      {trouble && (
        <Box role="alert" color="brick">
          {troubleText(trouble)}
        </Box>
      )}
    </Box>
  );
}
