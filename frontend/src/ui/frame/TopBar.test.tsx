import { act, fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { unanswered } from "../../api/connection";
import { sawVersion } from "../../api/version";
import { onAScreen, press } from "../../fixtures";
import { Refuses, serving } from "../../fixtures/server";
import { keptKey, keptOf, writeKept } from "../kept";
import { TopBar } from "./TopBar";

const RUNS = keptKey("runs", "tester", "v");

function bar(answer: unknown = undefined) {
  const calls = serving({ "POST /api/accounts/sign-out/": answer });
  const assign = vi.fn();
  vi.stubGlobal("location", { ...window.location, assign });
  onAScreen(<TopBar saved={{ kind: "waiting", words: "not saved yet: no connection" }} />);
  return { calls, assign };
}

it("says whether what is typed is saved, in words that can be read in full", () => {
  bar();
  expect(screen.getByRole("status").title).toBe("not saved yet: no connection");
});

it("signs out at once where nothing waits", async () => {
  const { assign } = bar();
  await press("Sign out");
  await waitFor(() => expect(assign).toHaveBeenCalledWith("/"));
});

it("tells first what would be lost, and stays", async () => {
  writeKept(RUNS, [{ id: "1" }, { id: "2" }]);
  const { calls } = bar();
  await press("Sign out");
  expect(screen.getByRole("alert").textContent).toContain("Not saved, and lost by it: 2 runs.");
  await press("Stay");
  expect(screen.queryByRole("alert")).toBeNull();
  expect(calls).toEqual([]);
  expect(keptOf("tester")).toHaveLength(1);
});

it("takes what waits along when asked again", async () => {
  writeKept(RUNS, [{ id: "1" }]);
  const { assign } = bar();
  await press("Sign out");
  fireEvent.click(screen.getByText("Sign out all the same"));
  await waitFor(() => expect(assign).toHaveBeenCalledWith("/"));
  expect(keptOf("tester")).toEqual([]);
});

it("says so where it cannot be done, and nothing is lost", async () => {
  writeKept(RUNS, [{ id: "1" }]);
  const { assign } = bar(new Refuses({ detail: "The server is busy." }, 503));
  await press("Sign out");
  await press("Sign out all the same");
  expect(await screen.findByText("You are still signed in. The server is busy.")).toBeTruthy();
  expect(assign).not.toHaveBeenCalled();
  expect(keptOf("tester")).toHaveLength(1);
});

it("says on every screen that the server does not answer, unless that is what keeps from saving", () => {
  onAScreen(
    <>
      <TopBar />
      <TopBar saved={{ kind: "saved", words: "saved 09:31" }} />
      <TopBar saved={{ kind: "waiting", words: "not saved yet: no connection" }} />
    </>,
  );
  const words = () => screen.getAllByRole("status").map((one) => one.textContent);
  expect(words()).toEqual(["saved 09:31", "not saved yet: no connection"]);
  act(unanswered);
  const none = "The server does not answer; it is asked again";
  expect(words()).toEqual([none, `saved 09:31. ${none}`, "not saved yet: no connection"]);
});

it("says that the server has a newer page by now, and loads it", () => {
  const script = document.createElement("script");
  script.type = "module";
  script.src = "/static/app/assets/index-old.js";
  document.head.append(script);
  const reload = vi.fn();
  vi.stubGlobal("location", { ...window.location, reload });
  onAScreen(<TopBar saved={{ kind: "saved", words: "saved 09:31" }} />);
  const words = () => screen.getByRole("status").textContent;
  act(() => sawVersion("index-old"));
  expect(words()).toBe("saved 09:31");
  act(() => sawVersion("index-new"));
  expect(words()).toBe("saved 09:31. The server has a newer page: load it");
  fireEvent.click(screen.getByText("load it"));
  expect(reload).toHaveBeenCalledOnce();
  // Another host may not be as far yet.
  act(() => sawVersion("index-old"));
  expect(words()).toBe("saved 09:31");
  script.remove();
});
