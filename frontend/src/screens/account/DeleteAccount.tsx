import { Box, Heading } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { answer, api, troubleText } from "../../api/client";
import { dropKept } from "../../ui/kept";
import { Sure } from "../../ui/Sure";

/** The account's end. */
export function DeleteAccount({ username }: { username: string }) {
  const remove = useMutation({
    mutationFn: (password: string) => answer(api.POST("/api/accounts/deleting/", { body: { password } })),
    onSuccess: async () => {
      await dropKept(username);
      window.location.assign("/");
    },
  });
  return (
    <Box as="section" mt="8" mb="8" aria-labelledby="delete-account" data-delete-account>
      <Heading as="h2" id="delete-account" size="md" mb="1">
        Delete the account
      </Heading>
      <Sure
        action="Delete my account"
        label="Your password, to be sure"
        secret
        busy={remove.isPending}
        onSure={(password) => remove.mutate(password)}
      >
        Workshops in which you are alone go with it, and nobody can bring them back: save their archives
        first. What you did in others' workshops stays there, without your name.
      </Sure>
      {remove.error && (
        <Box role="alert" color="brick" fontSize="sm" mt="1">
          {troubleText(remove.error)}
        </Box>
      )}
    </Box>
  );
}
