import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useState } from "react";
import { copyText } from "./copying";

/** A link that is told once: the server keeps no copy of it. */
export function ToldOnce({ label, words, path }: { label: string; words: string; path: string }) {
  const link = `${window.location.origin}${path}`;
  const [copied, setCopied] = useState(false);
  return (
    <Box mt="3" p="3" bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" data-told-once>
      <Box fontSize="sm" color="ink.second" mb="1">
        {words} It is shown only now.
      </Box>
      <Flex gap="2">
        <Input readOnly aria-label={label} value={link} onFocus={(event) => event.target.select()} />
        <Button onClick={() => void copyText(link).then(() => setCopied(true))}>
          {copied ? "Copied" : "Copy"}
        </Button>
      </Flex>
    </Box>
  );
}
