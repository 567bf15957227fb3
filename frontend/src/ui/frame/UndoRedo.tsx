import { Button, Flex } from "@chakra-ui/react";
import { memo, type ReactNode } from "react";

interface Props {
  undoable: boolean;
  redoable: boolean;
  dispatch: (action: { type: "undo" | "redo" }) => void;
  children?: ReactNode;
}

/** The two steps, with what else belongs beside them. */
export const UndoRedo = memo(function UndoRedo({ undoable, redoable, dispatch, children }: Props) {
  return (
    <Flex gap="1">
      <Button size="xs" disabled={!undoable} onClick={() => dispatch({ type: "undo" })} title="Ctrl Z">
        Undo
      </Button>
      <Button size="xs" disabled={!redoable} onClick={() => dispatch({ type: "redo" })} title="Ctrl Shift Z">
        Redo
      </Button>
      {children}
    </Flex>
  );
});
