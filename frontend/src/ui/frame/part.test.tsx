import { act, render, screen } from "@testing-library/react";
import { Suspense } from "react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { onAScreen } from "../../fixtures";
import { serving } from "../../fixtures/server";
import { Guarded } from "./Guarded";
import { fetchParts, part } from "./part";

const Shown = () => <p>it is here</p>;
const missing = () => Promise.reject(new TypeError("Failed to fetch dynamically imported module"));

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const later = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

it("a part that cannot be fetched waits for the connection, however long that takes", async () => {
  serving({
    "GET /api/session/": () => {
      throw new TypeError("no connection");
    },
  });
  let connected = false;
  const Part = part(() => (connected ? Promise.resolve(Shown) : missing()));
  render(
    <Suspense fallback={<p>loading</p>}>
      <Part />
    </Suspense>,
  );
  await later(600_000);
  expect(screen.getByText("loading")).toBeTruthy();
  connected = true;
  await later(60_000);
  expect(screen.getByText("it is here")).toBeTruthy();
});

it("comes at once when the connection is back", async () => {
  serving({ "GET /api/session/": {} });
  const answers = [missing, () => Promise.resolve(Shown)];
  const Part = part(() => (answers.shift() ?? missing)());
  render(
    <Suspense fallback={<p>loading</p>}>
      <Part />
    </Suspense>,
  );
  await later(1);
  window.dispatchEvent(new Event("online"));
  await later(1);
  expect(screen.getByText("it is here")).toBeTruthy();
});

it("a part that the server no longer has is told, with the way on, and the rest of the page stays", async () => {
  vi.spyOn(console, "error").mockImplementation(() => undefined);
  serving({ "GET /api/session/": {} });
  const Part = part(missing);
  onAScreen(
    <>
      <p>the rest</p>
      <Guarded>
        <Suspense fallback={null}>
          <Part />
        </Suspense>
      </Guarded>
    </>,
  );
  await later(10_000);
  expect(screen.getByRole("alert").textContent).toContain("What you typed is kept.");
  expect(screen.getByText("Load the page again")).toBeTruthy();
  expect(screen.getByText("the rest")).toBeTruthy();
});

it("all parts can be fetched before they are wanted, and one that fails keeps none from coming", async () => {
  const spy = vi.fn(missing);
  const other = vi.fn(() => Promise.resolve(Shown));
  part(spy);
  part(other);
  await fetchParts();
  expect(spy).toHaveBeenCalledOnce();
  expect(other).toHaveBeenCalledOnce();
});
