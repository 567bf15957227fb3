import { Flex } from "@chakra-ui/react";
import type { ComponentProps } from "react";

/** The list at the left of a screen; on a phone a row that can be pushed sideways. */
export function Rail(props: ComponentProps<typeof Flex>) {
  return (
    <Flex
      as="nav"
      direction={{ base: "row", md: "column" }}
      w={{ md: "172px" }}
      flex="none"
      borderRightWidth={{ md: "1px" }}
      borderBottomWidth={{ base: "1px", md: "0" }}
      borderColor="line"
      {...props}
    />
  );
}
