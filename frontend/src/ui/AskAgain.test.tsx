import { ChakraProvider } from "@chakra-ui/react";
import { fireEvent, render, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { system } from "../theme/system";
import { AskAgain } from "./AskAgain";

function shown() {
  const done = vi.fn();
  render(
    <ChakraProvider value={system}>
      <AskAgain ask="Leave" sure="Yes: leave" onSure={done} />
    </ChakraProvider>,
  );
  return { done, button: screen.getByRole("button") };
}

test("does it at the second press, not at the second half of a double click", () => {
  const { done, button } = shown();
  fireEvent.click(button, { detail: 1 });
  fireEvent.click(button, { detail: 2 });
  expect(button.textContent).toBe("Yes: leave");
  expect(done).not.toHaveBeenCalled();
  fireEvent.click(button, { detail: 1 });
  expect(done).toHaveBeenCalledOnce();
  expect(button.textContent).toBe("Leave");
});

test("forgets the first press when it is left", () => {
  const { done, button } = shown();
  fireEvent.click(button);
  fireEvent.blur(button);
  fireEvent.click(button);
  expect(done).not.toHaveBeenCalled();
});
