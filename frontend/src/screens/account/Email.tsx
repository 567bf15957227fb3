import { Box, Button, Heading } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, RefusedError, troubleText } from "../../api/client";
import { Entry } from "./SignIn";

/** Where a link goes when the password is forgotten. */
export function Email() {
  const queries = useQueryClient();
  const known = useQuery({ queryKey: ["email"], queryFn: () => answer(api.GET("/api/accounts/email/")) });
  const [typed, setTyped] = useState<string | null>(null);
  const [password, setPassword] = useState("");
  const email = typed ?? known.data?.email ?? "";
  const save = useMutation({
    mutationFn: () => answer(api.POST("/api/accounts/email/", { body: { email, password } })),
    onSuccess: () => {
      setPassword("");
      setTyped(null);
      return queries.invalidateQueries({ queryKey: ["email"] });
    },
  });
  const faults = save.error instanceof RefusedError ? (save.error.refusal.fields ?? {}) : {};
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  return (
    <Box as="section" mt="8" aria-labelledby="email" data-email>
      <Heading as="h2" id="email" size="md" mb="1">
        For a forgotten password
      </Heading>
      <form onSubmit={submit}>
        <Entry
          label="E-mail address"
          type="email"
          value={email}
          onChange={setTyped}
          complaint={faults.email}
          autoComplete="email"
        />
        {typed !== null && (
          <Entry
            label="Your password, to be sure"
            type="password"
            value={password}
            onChange={setPassword}
            complaint={faults.password}
            autoComplete="current-password"
          />
        )}
        <Button type="submit" disabled={typed === null} loading={save.isPending}>
          Send links there
        </Button>
        {save.isSuccess && typed === null && (
          <Box role="status" color="spruce" mt="1">
            Kept.
          </Box>
        )}
        {save.error && Object.keys(faults).length === 0 && (
          <Box role="alert" color="brick" mt="1">
            {troubleText(save.error)}
          </Box>
        )}
      </form>
    </Box>
  );
}
