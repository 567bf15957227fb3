import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, troubleText } from "../../api/client";

/** The ways to a new password; by mail only where the server can send any. It stands in no other form. */
export function Forgotten({ mail }: { mail: boolean }) {
  const [email, setEmail] = useState("");
  const ask = useMutation({
    mutationFn: () => answer(api.POST("/api/accounts/forgotten/", { body: { email } })),
  });
  return (
    <Box asChild mt="4" fontSize="sm" color="ink.second" data-forgotten>
      <details>
        <summary>I forgot my password</summary>
        {mail && (
          <form
            onSubmit={(event) => {
              event.preventDefault();
              ask.mutate();
            }}
          >
            <Flex gap="2" my="2">
              <Input
                type="email"
                required
                aria-label="Your e-mail address"
                placeholder="your e-mail address"
                autoComplete="email"
                value={email}
                onChange={(event) => setEmail(event.target.value)}
              />
              <Button type="submit" loading={ask.isPending}>
                Send me a link
              </Button>
            </Flex>
            {ask.isSuccess && (
              <Box role="status" color="spruce">
                If an account has this address, a link is on its way to it.
              </Box>
            )}
            {ask.error && (
              <Box role="alert" color="brick">
                {troubleText(ask.error)}
              </Box>
            )}
          </form>
        )}
        {mail ? "Or an" : "An"} owner of your workshop makes a link for a new one, under "Who works here".
        Whoever looks after this server can do it too: <code>./ydro reset-password NAME</code>
      </details>
    </Box>
  );
}
