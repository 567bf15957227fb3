import type { KeyboardEvent } from "react";

/** What a shape of a drawing does that is a button: it is pressed by pointer, Enter or space. */
export const pressed = (onPress: () => void) => ({
  style: { cursor: "pointer", outlineOffset: 3 },
  onClick: onPress,
  onKeyDown: (event: KeyboardEvent) => {
    if (event.key !== "Enter" && event.key !== " ") return;
    event.preventDefault();
    event.stopPropagation();
    onPress();
  },
});
