import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { BuildStep } from "../../api/client";
import { onTheBench, press } from "../../fixtures";
import { Refuses, serving } from "../../fixtures/server";
import { keptFile } from "../../ui/keptFiles";
import { Photos } from "./Photos";
import { usePhotos } from "./usePhotos";

const ADDRESS = "/api/vehicles/{vehicle}/build/photos/";
const PLACE = "ydrometer-photos|a|v";
const STEP = { id: "belt", title: "Tighten the belt", photos: ["p1"] } as unknown as BuildStep;
const FILE = new File(["jpeg"], "belt.jpg");

const Panel = () => <Photos step={STEP} photos={usePhotos()} />;

function step(answers: Record<string, unknown>) {
  const calls = serving(answers);
  return { calls, ...onTheBench(<Panel />) };
}

const take = () => fireEvent.change(screen.getByLabelText("Photo"), { target: { files: [FILE] } });
const nothing = () => {
  throw new TypeError("no connection");
};
const kept = () =>
  JSON.parse(localStorage.getItem(PLACE) ?? "[]") as { id: string; step: string; file: string }[];

beforeEach(() => {
  vi.stubGlobal("URL", Object.assign(URL, { createObjectURL: () => "blob:x", revokeObjectURL: vi.fn() }));
});

describe("a photo", () => {
  it("goes to the server with the step it is of, and leaves nothing here", async () => {
    const { calls } = step({ [`POST ${ADDRESS}`]: undefined });
    take();
    const [{ file } = { file: "" }] = kept();
    await waitFor(() => expect(kept()).toEqual([]));
    expect(calls.map((call) => [call.what, call.body])).toEqual([[`POST ${ADDRESS}`, FILE]]);
    expect(await keptFile(file)).toBeUndefined();
  });

  it("taken without a connection is seen, outlives a reload, and is sent once there is one", async () => {
    const first = step({ [`POST ${ADDRESS}`]: nothing });
    take();
    expect(await screen.findByText("kept here until it is sent")).toBeTruthy();
    await waitFor(() => expect(screen.getAllByAltText("Of: Tighten the belt")).toHaveLength(2));
    const [{ file } = { file: "" }] = kept();
    first.unmount();
    const again = step({ [`POST ${ADDRESS}`]: undefined });
    await waitFor(() => expect(kept()).toEqual([]));
    expect(again.calls[0]?.body).toBe(FILE);
    expect(screen.queryByText("kept here until it is sent")).toBeNull();
    expect(await keptFile(file)).toBeUndefined();
  });

  it("that the server cannot read is told, and not sent again", async () => {
    const words = "This is no JPEG or PNG.";
    const { calls } = step({ [`POST ${ADDRESS}`]: new Refuses({ detail: words }) });
    take();
    expect((await screen.findByRole("alert")).textContent).toBe(words);
    await waitFor(() => expect(kept()).toEqual([]));
    window.dispatchEvent(new Event("online"));
    expect(calls).toHaveLength(1);
  });

  it("is taken away, or told why it stays", async () => {
    const answers = [new Refuses({ detail: "You may look, not change." }, 403), undefined];
    const { calls } = step({ [`DELETE ${ADDRESS}{photo}/`]: () => answers.shift() });
    await press("take away");
    expect((await screen.findByRole("alert")).textContent).toBe("You may look, not change.");
    await press("take away");
    await waitFor(() => expect(screen.queryByRole("alert")).toBeNull());
    expect(calls[1]?.path).toEqual({ vehicle: "v", photo: "p1" });
  });
});
