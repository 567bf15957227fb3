/** A logger's file on its way: its first lines looked at, sent in pieces, read by a worker; with progress and cancel. */
import { useCallback, useEffect, useRef, useState } from "react";
import { answer, api, type LogFile, troubleText } from "../../../api/client";
import { AS_BYTES, inPieces, numbersOf } from "../../../api/pieces";
import { usePlace } from "../../../document/context";

export type LogLayout = LogFile["layout"];

const HEAD = 64_000;
const POLL_MS = 400;

export interface LogFileHeld {
  file: LogFile | null;
  /** Share that has been sent, while it is. */
  sent: number | null;
  trouble: string;
  begin: (file: File) => Promise<void>;
  read: (layout: LogLayout) => Promise<void>;
  cancel: () => Promise<void>;
  drop: () => void;
}

export function useLogFile(): LogFileHeld {
  const { vehicle } = usePlace();
  const [file, setFile] = useState<LogFile | null>(null);
  const [sent, setSent] = useState<number | null>(null);
  const [trouble, setTrouble] = useState("");
  const chosen = useRef<File | null>(null);
  const stopped = useRef(false);
  const arrived = useRef(false);
  const tried = useCallback(async (work: () => Promise<void>) => {
    setTrouble("");
    try {
      await work();
    } catch (error) {
      setTrouble(troubleText(error));
    }
    setSent(null);
  }, []);
  const change = (key: string, body: { layout?: Record<string, unknown>; do?: "look" | "cancel" }) =>
    answer(
      api.PATCH("/api/vehicles/{vehicle}/files/{file}/", { params: { path: { vehicle, file: key } }, body }),
    );
  /** Send it piece by piece, once; false where that was stopped. */
  const send = async (key: string, piece: number): Promise<boolean> => {
    const whole = chosen.current;
    if (!whole || arrived.current) return arrived.current;
    stopped.current = false;
    const move = (number: number) =>
      sendPiece(vehicle, key, number, whole.slice(number * piece, (number + 1) * piece));
    const passage = { going: setSent, stopped: () => stopped.current };
    arrived.current = await inPieces(numbersOf(whole.size, piece), move, passage);
    return arrived.current;
  };
  const id = file?.id;
  const waiting = file?.state === "waiting" || file?.state === "reading";
  useEffect(() => {
    if (!waiting || !id) return;
    const timer = window.setInterval(async () => {
      const { data } = await api.GET("/api/vehicles/{vehicle}/files/{file}/", {
        params: { path: { vehicle, file: id } },
      });
      if (data) setFile(data);
    }, POLL_MS);
    return () => window.clearInterval(timer);
  }, [waiting, id, vehicle]);
  return {
    file,
    sent,
    trouble,
    begin: (picked) =>
      tried(async () => {
        chosen.current = picked;
        arrived.current = false;
        setFile(null);
        // Only the server can look into a sheet, and only when all of it has come.
        const sheet = picked.name.toLowerCase().endsWith(".xlsx");
        const body = { name: picked.name, size: picked.size, head: sheet ? "" : await headOf(picked) };
        const reply = await answer(
          api.POST("/api/vehicles/{vehicle}/files/", { params: { path: { vehicle } }, body }),
        );
        if (!sheet) return setFile(reply);
        if (await send(reply.id, reply.piece)) setFile(await change(reply.id, { do: "look" }));
      }),
    read: (layout) =>
      tried(async () => {
        if (!file || !(await send(file.id, file.piece))) return;
        setFile(await change(file.id, { layout: layout as unknown as Record<string, unknown> }));
      }),
    cancel: () =>
      tried(async () => {
        stopped.current = true;
        if (id) await change(id, { do: "cancel" });
        setFile(null);
      }),
    drop: () => setFile(null),
  };
}

/** The first whole lines. */
async function headOf(file: File): Promise<string> {
  const text = await file.slice(0, HEAD).text();
  return file.size > HEAD ? text.slice(0, text.lastIndexOf("\n") + 1) : text;
}

async function sendPiece(vehicle: string, file: string, number: number, piece: Blob): Promise<void> {
  await answer(
    api.PUT("/api/vehicles/{vehicle}/files/{file}/pieces/{number}/", {
      params: { path: { vehicle, file, number } },
      body: piece as unknown as string,
      ...AS_BYTES,
    }),
  );
}
