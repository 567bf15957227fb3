import { Box, Button, Heading, Text } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, RefusedError, troubleText } from "../../api/client";
import { Entry } from "./SignIn";

/** Choosing a new password with a link that somebody gave. The code is behind the "#", which no log is sent. */
export default function NewPassword() {
  const [password, setPassword] = useState("");
  const choose = useMutation({
    mutationFn: () =>
      answer(api.POST("/api/accounts/reset/", { body: { code: window.location.hash.slice(1), password } })),
  });
  const faults = choose.error instanceof RefusedError ? (choose.error.refusal.fields ?? {}) : {};
  const submit = (event: FormEvent) => {
    event.preventDefault();
    choose.mutate();
  };
  return (
    <Box as="main" maxW="26rem" mx="auto" mt="12" px="4">
      <Heading as="h1" size="xl" mb="2">
        {choose.isSuccess ? "That is your password now" : "Choose a new password"}
      </Heading>
      {choose.isSuccess ? (
        <>
          <Text mb="4">You are signed out on every device. Sign in with the new one.</Text>
          <Button asChild variant="solid">
            <a href="/">Sign in</a>
          </Button>
        </>
      ) : (
        <form onSubmit={submit}>
          <Entry
            label="New password"
            type="password"
            value={password}
            onChange={setPassword}
            complaint={faults.password}
            autoComplete="new-password"
          />
          {choose.error && !faults.password && (
            <Text role="alert" color="brick" fontSize="sm" mb="2">
              {faults.code?.join(" ") ?? troubleText(choose.error)}
            </Text>
          )}
          <Button type="submit" variant="solid" loading={choose.isPending}>
            Make it mine
          </Button>
        </form>
      )}
    </Box>
  );
}
