/** A counter on a cable: lines from a serial port, where the browser can open one. */

interface Port {
  open: (options: { baudRate: number }) => Promise<void>;
  readable: ReadableStream<Uint8Array> | null;
  close: () => Promise<void>;
}

interface Serial {
  requestPort: () => Promise<Port>;
}

const BAUD = 115_200;

export const serialOf = (nav: Navigator): Serial | null => (nav as { serial?: Serial }).serial ?? null;

/** Read a port line by line until it is closed or `stop` is called. */
export async function readLines(port: Port, onLine: (line: string) => void): Promise<() => Promise<void>> {
  await port.open({ baudRate: BAUD });
  const reader = port.readable?.getReader();
  const decoder = new TextDecoder();
  let rest = "";
  const pump = async () => {
    for (;;) {
      const { value, done } = (await reader?.read()) ?? { value: undefined, done: true };
      if (done) break;
      rest += decoder.decode(value, { stream: true });
      const lines = rest.split(/\r?\n/);
      rest = lines.pop() ?? "";
      for (const line of lines) if (line.trim()) onLine(line);
    }
  };
  const running = pump().catch(() => undefined);
  return async () => {
    await reader?.cancel().catch(() => undefined);
    await running;
    reader?.releaseLock();
    await port.close().catch(() => undefined);
  };
}
