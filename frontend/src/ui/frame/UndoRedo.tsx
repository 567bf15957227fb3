import { Button, Flex } from "@chakra-ui/react";
import type { ReactNode } from "react";

interface Props {
  past: unknown[];
  future: unknown[];
  dispatch: (action: { type: "undo" | "redo" }) => void;
  children?: ReactNode;
}

/** The two steps, with what else belongs beside them. */
export function UndoRedo({ past, future, dispatch, children }: Props) {
  return (
    <Flex gap="1">
      <Button
        size="xs"
        disabled={past.length === 0}
        onClick={() => dispatch({ type: "undo" })}
        title="Ctrl Z"
      >
        Undo
      </Button>
      <Button
        size="xs"
        disabled={future.length === 0}
        onClick={() => dispatch({ type: "redo" })}
        title="Ctrl Shift Z"
      >
        Redo
      </Button>
      {children}
    </Flex>
  );
}
