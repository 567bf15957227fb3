import { Button, type ButtonProps } from "@chakra-ui/react";
import { useState } from "react";

interface Props extends Omit<ButtonProps, "onClick"> {
  /** What the button says first. */
  ask: string;
  /** What it says once pressed: what a second press does. */
  sure: string;
  onSure: () => void;
}

/** A button for what nobody wants by a slip of the thumb: it does it when pressed again, and forgets when left. */
export function AskAgain({ ask, sure, onSure, ...look }: Props) {
  const [asked, setAsked] = useState(false);
  return (
    <Button
      {...look}
      variant={asked ? "solid" : look.variant}
      onBlur={() => setAsked(false)}
      onClick={(event) => {
        // The second half of a double click is no answer.
        if (event.detail > 1) return;
        setAsked(!asked);
        if (asked) onSure();
      }}
    >
      {asked ? sure : ask}
    </Button>
  );
}
