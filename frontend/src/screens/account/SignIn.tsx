import { Box, Button, Flex, Heading, Input, Text } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link, useLocation } from "react-router";
import { answer, api, RefusedError, troubleText } from "../../api/client";
import { Forgotten } from "./Forgotten";

/** Signing in, signing up, and the demo's one button. */
export function SignIn({ demo, mail }: { demo: boolean; mail: boolean }) {
  const queries = useQueryClient();
  const invited = useLocation().pathname === "/join";
  const [joining, setJoining] = useState(invited);
  const [username, setUsername] = useState("");
  const [password, setPassword] = useState("");
  const enter = useMutation({
    mutationFn: (how: "demo" | "form") => {
      if (how === "demo") return answer(api.POST("/api/demo/"));
      const body = { username, password };
      return joining
        ? answer(api.POST("/api/accounts/", { body }))
        : answer(api.POST("/api/accounts/sign-in/", { body }));
    },
    onSuccess: (session) => queries.setQueryData(["session"], session),
  });
  const faults = enter.error instanceof RefusedError ? (enter.error.refusal.fields ?? {}) : {};
  const submit = (event: FormEvent) => {
    event.preventDefault();
    enter.mutate("form");
  };
  return (
    <Flex as="main" minH="100%" align="center" justify="center" p="4">
      <Box w="100%" maxW="24rem" bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p="6">
        <Heading as="h1" size="2xl" mb="1">
          Ydrometer
        </Heading>
        <Text color="ink.second" mb="4">
          {invited
            ? "You are invited to a workshop. Sign in, or make an account, and you will be asked whether to join."
            : "Choose the gearing, see the speed, the push and the current before you cut metal."}
        </Text>
        {demo && (
          <Box mb="5" pb="5" borderBottomWidth="1px" borderColor="line">
            <Button variant="solid" w="100%" onClick={() => enter.mutate("demo")} loading={enter.isPending}>
              Visit the Saltmarsh Workshop
            </Button>
            <Text fontSize="sm" color="ink.second" mt="1">
              An invented club with vehicles to try things on. No account needed.
            </Text>
          </Box>
        )}
        <form onSubmit={submit}>
          <Entry
            label="Name"
            value={username}
            onChange={setUsername}
            complaint={faults.username}
            autoComplete="username"
          />
          <Entry
            label="Password"
            type="password"
            value={password}
            onChange={setPassword}
            complaint={faults.password}
            autoComplete={joining ? "new-password" : "current-password"}
          />
          {enter.error && Object.keys(faults).length === 0 && (
            <Text role="alert" color="brick" fontSize="sm" mb="2">
              {troubleText(enter.error)}
            </Text>
          )}
          <Flex gap="2" align="center" wrap="wrap">
            <Button type="submit" variant={demo ? "outline" : "solid"} loading={enter.isPending}>
              {joining ? "Make the account" : "Sign in"}
            </Button>
            <Button variant="ghost" onClick={() => setJoining(!joining)}>
              {joining ? "I have an account" : "I am new here"}
            </Button>
          </Flex>
        </form>
        <Forgotten mail={mail} />
        <Flex gap="4" mt="5" pt="4" borderTopWidth="1px" borderColor="line" fontSize="sm" wrap="wrap">
          <Link to="/class">Join a class with a code</Link>
          <Link to="/practice">Practise without an account</Link>
        </Flex>
      </Box>
    </Flex>
  );
}

interface EntryProps {
  label: string;
  value: string;
  onChange: (text: string) => void;
  complaint?: string[];
  type?: string;
  autoComplete?: string;
}

export function Entry({ label, value, onChange, complaint, type = "text", autoComplete }: EntryProps) {
  const id = `entry-${label.toLowerCase().replaceAll(" ", "-")}`;
  return (
    <Box mb="3">
      <Box as="label" {...{ htmlFor: id }} display="block" fontSize="sm" color="ink.second">
        {label}
      </Box>
      <Input
        id={id}
        type={type}
        value={value}
        name={autoComplete}
        autoComplete={autoComplete}
        required
        aria-invalid={complaint ? true : undefined}
        aria-describedby={complaint ? `${id}-complaint` : undefined}
        onChange={(event) => onChange(event.target.value)}
      />
      {complaint && (
        <Text id={`${id}-complaint`} role="alert" color="brick" fontSize="sm">
          {complaint.join(" ")}
        </Text>
      )}
    </Box>
  );
}
