import { act, screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { RigState } from "../../../api/client";
import { DOCUMENTS, onTheBench } from "../../../fixtures";
import { Refuses, serving } from "../../../fixtures/server";
import { type PracticeRig, useRig } from "./useRig";

/** Streams that were opened, each to be told what comes. */
let streams: FakeStream[] = [];

class FakeStream {
  static readonly CLOSED = 2;
  readyState = 1;
  onopen: (() => void) | null = null;
  onerror: (() => void) | null = null;
  onmessage: ((event: { data: string }) => void) | null = null;

  constructor(readonly url: string) {
    streams.push(this);
  }

  close() {
    this.readyState = FakeStream.CLOSED;
  }

  says(...lines: object[]) {
    act(() => {
      for (const line of lines) this.onmessage?.({ data: JSON.stringify(line) });
    });
  }
}

beforeEach(() => {
  streams = [];
  vi.stubGlobal("EventSource", FakeStream);
});

const ADDRESS = "/api/vehicles/{vehicle}/rig/";
const AT_REST: RigState = { action: null, after: 0, hidden: [] };
const AT_WORK: RigState = { action: "run", after: 40, hidden: [] };

let rig: PracticeRig;

function Panel() {
  rig = useRig();
  return (
    <output>{`${rig.state?.action ?? "rests"}, ${rig.lines.length} lines, ${rig.lost ? "lost" : "heard"}`}</output>
  );
}

function watching(answers: Record<string, unknown>) {
  const calls = serving(answers);
  const shown = onTheBench(<Panel />);
  return { calls, ...shown };
}

describe("the practice rig", () => {
  it("is ordered, heard line by line, and rests when it has done", async () => {
    let state = AT_REST;
    const { calls } = watching({
      [`GET ${ADDRESS}`]: () => state,
      [`POST ${ADDRESS}`]: () => {
        state = AT_WORK;
        return state;
      },
    });
    expect(await screen.findByText("rests, 0 lines, heard")).toBeTruthy();
    await act(async () => void (await rig.order("run", 3, null)));
    expect(calls[0]?.body).toEqual({ action: "run", repeats: 3, tried: null, design: DOCUMENTS.plain });
    const stream = streams.at(-1) as FakeStream;
    expect(stream.url).toBe("/api/vehicles/v/rig/stream/?after=40");
    stream.says({ t: 0 }, { t: 1 });
    expect(screen.getByText("run, 2 lines, heard")).toBeTruthy();
    state = AT_REST;
    stream.says({ done: 7 });
    expect(await screen.findByText("rests, 2 lines, heard")).toBeTruthy();
    expect(stream.readyState).toBe(FakeStream.CLOSED);
  });

  it("at work already, for somebody else say, is heard from its first line", async () => {
    watching({ [`GET ${ADDRESS}`]: AT_WORK });
    await waitFor(() =>
      expect(streams.map((stream) => stream.url)).toEqual(["/api/vehicles/v/rig/stream/?after=40"]),
    );
  });

  it("is said to be lost only where the browser does not come again by itself", async () => {
    watching({ [`GET ${ADDRESS}`]: AT_WORK });
    await waitFor(() => expect(streams).toHaveLength(1));
    const [stream] = streams as [FakeStream];
    act(() => stream.onerror?.());
    expect(screen.getByText("run, 0 lines, heard")).toBeTruthy();
    vi.spyOn(navigator, "onLine", "get").mockReturnValue(false);
    act(() => stream.onerror?.());
    expect(screen.getByText("run, 0 lines, lost")).toBeTruthy();
    act(() => stream.onopen?.());
    expect(screen.getByText("run, 0 lines, heard")).toBeTruthy();
  });

  it("that is busy says so, and is not listened to in vain", async () => {
    const words = "The rig is at work: wait until it is done, or stop it.";
    watching({ [`GET ${ADDRESS}`]: AT_REST, [`POST ${ADDRESS}`]: new Refuses({ detail: words }) });
    await screen.findByText("rests, 0 lines, heard");
    let ordered = true;
    await act(async () => {
      ordered = await rig.order("spin", 1, null);
    });
    expect([ordered, rig.trouble, streams]).toEqual([false, words, []]);
  });

  it("is stopped, and its stream with it", async () => {
    const { calls } = watching({ [`GET ${ADDRESS}`]: AT_WORK, [`PATCH ${ADDRESS}`]: AT_REST });
    await waitFor(() => expect(streams).toHaveLength(1));
    await act(() => rig.change("stop"));
    expect(calls[0]?.body).toEqual({ do: "stop" });
    expect(streams[0]?.readyState).toBe(FakeStream.CLOSED);
  });

  it("is left alone by a page that goes", async () => {
    const { unmount } = watching({ [`GET ${ADDRESS}`]: AT_WORK });
    await waitFor(() => expect(streams).toHaveLength(1));
    unmount();
    expect(streams[0]?.readyState).toBe(FakeStream.CLOSED);
  });
});
