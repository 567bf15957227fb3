import { fireEvent, render, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { AxleWheel, Handle, slopeRise } from "./SideViewParts";

test("a handle moves by keys, with Shift in larger steps", () => {
  const onMove = vi.fn();
  render(
    <svg>
      <title>side view</title>
      <Handle x={10} y={10} name="Centre of mass" onMove={onMove} />
    </svg>,
  );
  const handle = screen.getByRole("button", { name: /Centre of mass/ });
  fireEvent.keyDown(handle, { key: "ArrowRight" });
  fireEvent.keyDown(handle, { key: "ArrowUp", shiftKey: true });
  fireEvent.keyDown(handle, { key: "Home" });
  expect(onMove.mock.calls).toEqual([
    [1, 0],
    [0, -10],
  ]);
});

test("a wheel says whether it is driven, and is chosen by click or key", () => {
  const onToggle = vi.fn();
  render(
    <svg>
      <title>side view</title>
      <AxleWheel x={0} y={0} radius={20} name="rear wheels" driven onToggle={onToggle} />
    </svg>,
  );
  const wheel = screen.getByRole("button", { name: "rear wheels, driven" });
  fireEvent.click(wheel);
  fireEvent.keyDown(wheel, { key: "Enter" });
  fireEvent.keyDown(wheel, { key: "x" });
  expect(onToggle).toHaveBeenCalledTimes(2);
  expect(wheel.getAttribute("aria-pressed")).toBe("true");
});

test("whoever may only look gets no button", () => {
  render(
    <svg>
      <title>side view</title>
      <AxleWheel x={0} y={0} radius={20} name="front wheels" driven={false} />
    </svg>,
  );
  expect(screen.queryByRole("button", { name: /front wheels/ })).toBeNull();
});

test("a slope is drawn no steeper than there is room", () => {
  expect([0, 0.18, 2, -2].map(slopeRise)).toEqual([0, 18, 60, -40]);
});
