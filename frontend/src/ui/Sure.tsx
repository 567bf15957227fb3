import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { type FormEvent, type ReactNode, useState } from "react";

interface Props {
  /** What the button does. */
  action: string;
  /** What is typed to be sure. */
  label: string;
  placeholder?: string;
  secret?: boolean;
  busy: boolean;
  onSure: (typed: string) => void;
  children: ReactNode;
}

/** Something that cannot be taken back: what it does in words, and something to type before it happens. */
export function Sure({ action, label, placeholder, secret, busy, onSure, children }: Props) {
  const [typed, setTyped] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (typed.trim()) onSure(typed);
  };
  return (
    <form onSubmit={submit}>
      <Box color="ink.second" fontSize="sm" mb="1">
        {children}
      </Box>
      <Flex gap="2" wrap="wrap">
        <Input
          aria-label={label}
          placeholder={placeholder ?? label}
          type={secret ? "password" : "text"}
          autoComplete={secret ? "current-password" : "off"}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          flex="1"
          minW="12rem"
          fontFamily="body"
        />
        <Button type="submit" disabled={!typed.trim()} loading={busy}>
          {action}
        </Button>
      </Flex>
    </form>
  );
}
