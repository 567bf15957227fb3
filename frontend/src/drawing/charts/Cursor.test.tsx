import { fireEvent, render, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { both, Cursor, CursorProvider } from "./Cursor";

const RUN = { time: [0, 1, 3], speed: [0, 2, 4] };
const series = (key: string) => [
  {
    key,
    name: key,
    colour: "",
    points: [
      [0, 0],
      [10, 100],
    ] as [number, number][],
  },
];
const format = (value: number) => value.toFixed(1);

test("time and speed of the run belong together", () => {
  expect(both(RUN, "time", 2)).toEqual({ time: 2, speed: 3 });
  expect(both(RUN, "speed", 1)).toEqual({ time: 0.5, speed: 1 });
  expect(both(RUN, "speed", 9)).toEqual({ speed: 9, time: null });
  expect(both(null, "speed", 1)).toEqual({ speed: 1, time: null });
});

test("a key in one chart moves the cursor of all, and Enter picks the speed", () => {
  const picked = vi.fn();
  render(
    <CursorProvider run={RUN} onPick={picked}>
      <Cursor axis="time" label="run" scale={1} max={3} unit="s" series={series("speed")} format={format} />
      <Cursor
        axis="speed"
        label="force"
        scale={1}
        max={6}
        unit="m/s"
        series={series("drive")}
        format={format}
      />
    </CursorProvider>,
  );
  const [run, force] = screen.getAllByRole("slider");
  if (!run || !force) throw new Error("two cursors are wanted");
  for (let i = 0; i < 20; i++) fireEvent.keyDown(run, { key: "ArrowRight" });
  expect(run.getAttribute("aria-valuetext")).toBe("1.0 s, speed 10.0");
  expect(force.getAttribute("aria-valuetext")).toBe("2.0 m/s, drive 20.0");
  fireEvent.keyDown(run, { key: "Enter" });
  expect(picked).toHaveBeenCalledOnce();
  expect(picked.mock.calls[0]?.[0]).toBeCloseTo(2);
  fireEvent.keyDown(run, { key: "Escape" });
  expect(force.getAttribute("aria-valuetext")).toBe("nothing chosen");
});
