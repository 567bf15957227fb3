import { fireEvent, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { BuildShown, Days } from "../../../api/client";
import type { Book, BookOf } from "../../../document/useBook";
import { onTheBench } from "../../../fixtures";
import { DaysPanel } from "./DaysPanel";

const TIME_ZONE = process.env.TZ;
beforeEach(() => vi.useFakeTimers({ now: new Date("2026-11-30T12:00:00Z"), toFake: ["Date"] }));
afterEach(() => {
  process.env.TZ = TIME_ZONE;
});

const DAYS: Days = {
  event: "2026-12-05T09:00:00",
  late_by_days: 2,
  sentence: "It is late by 2 days.",
  trouble: "",
  reliefs: [
    { words: "one more person", late_by_days: 1 },
    { words: "two more people", late_by_days: 0 },
  ],
  orders: [
    { part: "belt", latest: "2026-12-01", late: false },
    { part: "motor", latest: "2026-11-20", late: true },
  ],
  shifts: [],
  days: [
    { date: "2026-11-30", minutes: 60, critical: false, steps: ["a"] },
    { date: "2026-12-01", minutes: 120, critical: true, steps: ["a", "b"] },
    { date: "2026-12-06", minutes: 30, critical: false, steps: ["b"] },
  ],
};
const STEPS = [
  { id: "a", title: "Fit the motor" },
  { id: "b", title: "Put on the belt" },
];

function panel(plan: Days | null = DAYS, first: Book = {}, taken = true) {
  let book = first;
  const change = vi.fn(async (how: (old: Book) => Book) => {
    book = how(book);
    return taken;
  });
  const held = { book, change, trouble: taken ? "" : "Hours are from 0 to 24." } as unknown as BookOf;
  const shown = { plan, judged: 6, pace: 1.3, steps: STEPS } as unknown as BuildShown;
  const onChoose = vi.fn();
  onTheBench(<DaysPanel shown={shown} book={held} readOnly={false} onChoose={onChoose} />);
  return { onChoose, change, book: () => book };
}

describe("the days to the event", () => {
  it("say first what is late, and what would help", () => {
    panel();
    expect(screen.getByRole("heading", { name: "It is late by 2 days." })).toBeTruthy();
    expect(screen.getByText("one more person: late by 1 day")).toBeTruthy();
    expect(screen.getByText("two more people: in time")).toBeTruthy();
  });

  it("have today's list on top, each a way to its step", () => {
    const { onChoose } = panel();
    expect(screen.getByText(/^Today, /)).toBeTruthy();
    fireEvent.click(screen.getByText("Fit the motor"));
    expect(onChoose).toHaveBeenCalledWith("a");
  });

  it("say what is to be ordered by when", () => {
    panel();
    expect(within(screen.getByText("motor").closest("tr") as HTMLElement).getByText("today")).toBeTruthy();
    expect(
      within(screen.getByText("belt").closest("tr") as HTMLElement).getByText("by Tue, Dec 1"),
    ).toBeTruthy();
  });

  it("are the same days west of Greenwich", () => {
    process.env.TZ = "America/Denver";
    panel();
    expect(screen.getByText("by Tue, Dec 1")).toBeTruthy();
  });

  it("stand in a strip with the event among them, and open by a press", () => {
    panel();
    const strip = screen.getByText("Days with work").parentElement as HTMLElement;
    const words = [...strip.querySelectorAll(".day")].map((entry) => entry.querySelector("b")?.textContent);
    expect(words[2]).toBe("event");
    expect(words).toHaveLength(4);
    fireEvent.click(within(strip).getByText(", 2 steps, critical").closest("button") as HTMLElement);
    expect(within(strip).getByText("Put on the belt")).toBeTruthy();
  });

  it("ask for the event where none is said", () => {
    panel(null);
    expect(screen.getByText(/Say when the event is/)).toBeTruthy();
  });

  it("tell one's own pace once enough steps have their minutes", () => {
    panel();
    expect(screen.getByText(/You take 1.3 times as long as assumed, by 6 steps/)).toBeTruthy();
  });
});

describe("when there is time", () => {
  it("is typed by weekday, with a comma too, and kept when the field is left", async () => {
    const { book } = panel();
    const monday = screen.getByLabelText("Mon");
    fireEvent.change(monday, { target: { value: "1,5" } });
    expect(book().hours).toBeUndefined();
    fireEvent.blur(monday);
    expect(book().hours).toEqual([1.5, 2, 2, 2, 2, 6, 6]);
  });

  it("stays typed where it is refused", async () => {
    panel(DAYS, {}, false);
    const monday = screen.getByLabelText("Mon") as HTMLInputElement;
    fireEvent.change(monday, { target: { value: "30" } });
    fireEvent.keyDown(monday, { key: "Enter" });
    await Promise.resolve();
    expect(monday.value).toBe("30");
    expect(screen.getByRole("alert").textContent).toBe("Hours are from 0 to 24.");
  });

  it("knows the event and how many people there are", () => {
    const { book } = panel(null, { event: "2026-12-05T09:00" } as Book);
    fireEvent.change(screen.getByLabelText("people"), { target: { value: "3" } });
    fireEvent.change(screen.getByLabelText("event"), { target: { value: "" } });
    expect(book()).toMatchObject({ people: 3, event: undefined });
  });
});
