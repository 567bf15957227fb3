import { Box, Heading, Text } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { answer, api, troubleText } from "../../api/client";
import { AskAgain } from "../../ui/AskAgain";
import { Sure } from "../../ui/Sure";

/** Leaving a workshop, and closing it for everybody. */
export function Going({ workshop, name, owner }: { workshop: string; name: string; owner: boolean }) {
  const path = { params: { path: { workshop } } };
  const queries = useQueryClient();
  const navigate = useNavigate();
  const home = async () => {
    await queries.invalidateQueries({ queryKey: ["workshops"] });
    await navigate("/");
  };
  const leave = useMutation({
    mutationFn: () => answer(api.POST("/api/workshops/{workshop}/leaving/", path)),
    onSuccess: home,
  });
  const close = useMutation({
    mutationFn: (typed: string) =>
      answer(api.POST("/api/workshops/{workshop}/closing/", { ...path, body: { name: typed } })),
    onSuccess: home,
  });
  const trouble = leave.error ?? close.error;
  return (
    <Box as="section" mt="8">
      <Heading as="h2" size="md" mb="2">
        Leave
      </Heading>
      <AskAgain
        ask="Leave this workshop"
        sure="Yes: leave, until somebody invites me again"
        loading={leave.isPending}
        onSure={() => leave.mutate()}
      />
      {owner && (
        <Box mt="4">
          <Sure
            action="Close the workshop"
            label="Name of the workshop to close"
            placeholder={name}
            busy={close.isPending}
            onSure={(typed) => close.mutate(typed)}
          >
            Or close it for everybody. Nothing in it is lost: an owner can open it again from their account.
            To be sure, type its name.
          </Sure>
        </Box>
      )}
      {trouble && (
        <Text role="alert" color="brick" mt="2">
          {troubleText(trouble)}
        </Text>
      )}
    </Box>
  );
}
