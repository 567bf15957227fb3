import { fireEvent, render, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { Plot } from "./Plot";

const axis = (unit: string) => ({ unit, format: (value: number) => value.toFixed(0) });

test("points can be moved by keys, never below nothing", () => {
  const onMove = vi.fn();
  const points: [number, number][] = [
    [1000, 5],
    [2000, 0],
  ];
  render(
    <Plot label="Torque" colour="red" points={points} x={axis("rpm")} y={axis("N·m")} onMove={onMove} />,
  );
  fireEvent.keyDown(screen.getByRole("button", { name: /Point 1: 1000 rpm, 5 N·m/ }), { key: "ArrowUp" });
  fireEvent.keyDown(screen.getByRole("button", { name: /Point 2/ }), { key: "ArrowDown" });
  const [first, second] = onMove.mock.calls;
  expect(first?.[0]).toBe(0);
  expect(first?.[1][1]).toBeGreaterThan(5);
  expect(second?.[1]).toEqual([2000, 0]);
});

test("a curve that only shows has no handles", () => {
  const { container } = render(
    <Plot
      label="Current"
      colour="red"
      points={[
        [0, 1],
        [20, 0],
      ]}
      x={axis("V")}
      y={axis("A")}
    />,
  );
  expect(container.querySelectorAll("circle")).toHaveLength(0);
});
