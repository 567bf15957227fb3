import { Box, Button, Flex, Heading, Text } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, troubleText } from "../../api/client";
import { back } from "../../api/connection";
import { Entry } from "./SignIn";

/** Over the page when the session has ended: signing in goes on where one was, and nothing typed is lost. */
export function SignInAgain({ username, demo }: { username: string; demo: boolean }) {
  const [password, setPassword] = useState("");
  const enter = useMutation({
    mutationFn: (how: "demo" | "form") =>
      how === "demo"
        ? answer(api.POST("/api/demo/"))
        : answer(api.POST("/api/accounts/sign-in/", { body: { username, password } })),
    onSuccess: (session) => {
      if (session.username === username) back();
      // Somebody else has other workshops: the page begins anew.
      else window.location.assign("/");
    },
  });
  return (
    <Flex position="fixed" inset="0" zIndex="modal" bg="blackAlpha.500" align="center" justify="center" p="4">
      <Box
        role="dialog"
        aria-modal="true"
        aria-label="Sign in again"
        w="100%"
        maxW="24rem"
        bg="panel"
        borderWidth="1px"
        borderColor="line"
        borderRadius="3px"
        p="6"
      >
        <Heading as="h2" size="lg" mb="1">
          You are signed out
        </Heading>
        <Text color="ink.second" mb="4">
          Sign in again to go on. What you typed is kept.
        </Text>
        {demo ? (
          <Button variant="solid" w="100%" autoFocus onClick={() => enter.mutate("demo")}>
            Go on in the Saltmarsh Workshop
          </Button>
        ) : (
          <form
            onSubmit={(event: FormEvent) => {
              event.preventDefault();
              enter.mutate("form");
            }}
          >
            <Entry
              label={`Password of ${username}`}
              type="password"
              value={password}
              onChange={setPassword}
              autoComplete="current-password"
            />
            <Button type="submit" variant="solid" loading={enter.isPending}>
              Sign in
            </Button>
          </form>
        )}
        {enter.error && (
          <Text role="alert" color="brick" mt="2">
            {troubleText(enter.error)}
          </Text>
        )}
        <Button mt="3" size="xs" variant="ghost" onClick={() => window.location.assign("/")}>
          Use another account
        </Button>
      </Box>
    </Flex>
  );
}
