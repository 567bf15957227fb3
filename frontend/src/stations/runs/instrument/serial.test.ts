import { expect, test } from "vitest";
import { readLines, serialOf } from "./serial";

/** A port of our own making: what it says comes in pieces that end anywhere. */
function port(...pieces: string[]) {
  const encoder = new TextEncoder();
  let closed = false;
  const readable = new ReadableStream<Uint8Array>({
    start(control) {
      for (const piece of pieces) control.enqueue(encoder.encode(piece));
    },
  });
  return {
    open: async () => {},
    readable,
    close: async () => {
      closed = true;
    },
    wasClosed: () => closed,
  };
}

test("pieces are put together to lines, and the port is closed at the end", async () => {
  const counter = port('{"instrument": "cou', 'nter"}\r\n{"t": 1, "pul', 'se": 1}\n\n{"t": 2');
  const lines: string[] = [];
  const stop = await readLines(counter, (line) => lines.push(line));
  await new Promise((done) => setTimeout(done, 10));
  await stop();
  expect(lines).toEqual(['{"instrument": "counter"}', '{"t": 1, "pulse": 1}']);
  expect(counter.wasClosed()).toBe(true);
});

test("where the browser can open none there is none", () => {
  expect(serialOf({} as Navigator)).toBeNull();
});
