import { Box, Heading } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { Link } from "react-router";

/** A whole screen that only says something, with the way back. */
export function Notice({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box
      as="main"
      maxW="36rem"
      mx="auto"
      mt="16"
      p="6"
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="3px"
    >
      <Heading as="h1" size="lg" mb="2">
        {title}
      </Heading>
      <Box mb="3">{children}</Box>
      <Box asChild color="spruce" textDecoration="underline">
        <Link to="/">Go to the bench</Link>
      </Box>
    </Box>
  );
}
