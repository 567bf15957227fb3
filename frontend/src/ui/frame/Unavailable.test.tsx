import { useQuery } from "@tanstack/react-query";
import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { answer, api, RefusedError } from "../../api/client";
import { whenBack } from "../../api/connection";
import { onAScreen, press } from "../../fixtures";
import { serving } from "../../fixtures/server";
import { Unavailable } from "./Unavailable";

const shown = (error: Error) =>
  onAScreen(
    <Unavailable error={error} title="There is no such race">
      It belongs to others.
    </Unavailable>,
  );

it("says of what the server will not show why", () => {
  shown(new RefusedError({ detail: "Not found." }, 404));
  expect(screen.getByRole("heading").textContent).toBe("There is no such race");
  expect(screen.getByText("It belongs to others.")).toBeTruthy();
});

it("never says that something is not there because the server is busy, or not to be reached", () => {
  shown(new RefusedError({ detail: "The server is busy." }, 503));
  expect(screen.queryByText("There is no such race")).toBeNull();
  expect(screen.getByText(/The server is busy. It is tried again by itself./)).toBeTruthy();
});

it("asks again at once when told to", async () => {
  const answers = [new TypeError("no connection"), { username: "tester" }];
  serving({
    "GET /api/session/": () => {
      const next = answers.shift();
      if (next instanceof Error) throw next;
      return next;
    },
  });
  function Screen() {
    const query = useQuery({ queryKey: ["session"], queryFn: () => answer(api.GET("/api/session/")) });
    whenBack(() => void query.refetch());
    if (query.data) return <h1>{query.data.username}</h1>;
    return query.failureReason ? (
      <Unavailable error={query.failureReason} title="">
        {""}
      </Unavailable>
    ) : null;
  }
  onAScreen(<Screen />);
  expect(await screen.findByText(/The server does not answer./)).toBeTruthy();
  await press("Try again now");
  await waitFor(() => expect(screen.getByRole("heading").textContent).toBe("tester"));
});
