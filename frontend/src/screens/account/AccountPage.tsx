import { Box, Button, Heading, Text } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, RefusedError } from "../../api/client";
import { useSession } from "../../api/session";
import { TopBar, useBar } from "../../ui/frame/TopBar";
import { ClosedWorkshops } from "./ClosedWorkshops";
import { DeleteAccount } from "./DeleteAccount";
import { Devices } from "./Devices";
import { Email } from "./Email";
import { Entry } from "./SignIn";

/** The password, and the letter keys. */
export function AccountPage() {
  const { username, preferences, change } = useBar();
  const session = useSession().data;
  const visitor = session?.visitor !== false;
  const [current, setCurrent] = useState("");
  const [password, setPassword] = useState("");
  const save = useMutation({
    mutationFn: () => answer(api.POST("/api/accounts/password/", { body: { current, password } })),
    onSuccess: () => {
      setCurrent("");
      setPassword("");
    },
  });
  const faults = save.error instanceof RefusedError ? (save.error.refusal.fields ?? {}) : {};
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  return (
    <>
      <TopBar />
      <Box as="main" maxW="28rem" mx="auto" mt="8" px="4">
        <Heading as="h1" size="xl" mb="4">
          {username}
        </Heading>
        <form onSubmit={submit}>
          <Entry
            label="Present password"
            type="password"
            value={current}
            onChange={setCurrent}
            complaint={faults.current}
            autoComplete="current-password"
          />
          <Entry
            label="New password"
            type="password"
            value={password}
            onChange={setPassword}
            complaint={faults.password}
            autoComplete="new-password"
          />
          <Button type="submit" variant="solid" loading={save.isPending}>
            Change the password
          </Button>
          {save.isSuccess && (
            <Text role="status" mt="2" color="spruce">
              Changed.
            </Text>
          )}
        </form>
        {session?.mail && !visitor && <Email />}
        <Devices />
        <ClosedWorkshops />
        <Heading as="h2" size="md" mt="8" mb="1">
          Letter keys
        </Heading>
        <Text color="ink.second" fontSize="sm" mb="2">
          M sets the mark while the drawing has the focus.
        </Text>
        <Button
          onClick={() => change({ letterKeys: !preferences.letterKeys })}
          aria-pressed={preferences.letterKeys}
        >
          {preferences.letterKeys ? "Switch letter keys off" : "Switch letter keys on"}
        </Button>
        {!visitor && <DeleteAccount username={username} />}
      </Box>
    </>
  );
}
