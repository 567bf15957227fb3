import { act, fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { api } from "../api/client";
import { onAScreen } from "../fixtures";
import { DownloadLink } from "./DownloadLink";

const HEADERS = { "Content-Disposition": 'attachment; filename="Knot.pdf"' };
const busy = () => ({
  error: { detail: "The server has its hands full." },
  response: new Response(null, { status: 503 }),
});

it("asks again while the server is busy, says so, and saves the file under its name", async () => {
  vi.useFakeTimers();
  const saved: string[] = [];
  vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(function (this: HTMLAnchorElement) {
    saved.push(this.download);
  });
  URL.createObjectURL = vi.fn(() => "blob:");
  URL.revokeObjectURL = vi.fn();
  const file = { data: new Blob(["pdf"]), response: new Response(null, { headers: HEADERS }) };
  const answers = [busy(), busy(), file];
  const get = vi.spyOn(api, "GET").mockImplementation((async () => answers.shift()) as never);
  onAScreen(<DownloadLink href="/api/sheet/">Sheet</DownloadLink>);
  fireEvent.click(screen.getByText("Sheet"));
  expect(screen.getByText(/is being made/)).toBeTruthy();
  await act(() => vi.advanceTimersByTimeAsync(10_000));
  vi.useRealTimers();
  expect(saved).toEqual(["Knot.pdf"]);
  expect(get).toHaveBeenCalledTimes(3);
  expect(screen.queryByText(/is being made/)).toBeNull();
});

it("tells a refusal at once", async () => {
  const refused = {
    error: { detail: "There is no such vehicle." },
    response: new Response(null, { status: 404 }),
  };
  vi.spyOn(api, "GET").mockImplementation((async () => refused) as never);
  onAScreen(<DownloadLink href="/api/sheet/">Sheet</DownloadLink>);
  fireEvent.click(screen.getByText("Sheet"));
  expect((await screen.findByRole("alert")).textContent).toBe("There is no such vehicle.");
});
