/** An archive on its way: written by the server and fetched, or sent and opened; with progress, and to be gone on with. */
import { useCallback, useEffect, useRef, useState } from "react";
import { type ArchiveRow, answer, api, troubleText } from "../../api/client";
import { AS_BYTES, inPieces, insistently, numbersOf } from "../../api/pieces";
import { saveBlob } from "../../ui/saving";

const OFTEN_MS = 500;

export interface ArchiveHeld {
  row: ArchiveRow | null;
  /** Share that was sent or fetched, while it is. */
  moved: number | null;
  trouble: string;
  save: (workshop: string) => Promise<void>;
  /** Sends a file and has it opened; one of which a part has come already is gone on with. */
  open: (file: File) => Promise<void>;
  /** Goes on after a failure; null where there is nothing to go on with. */
  goOn: (() => Promise<void>) | null;
  cancel: () => Promise<void>;
}

const isUnderWay = (row: ArchiveRow) => row.state === "waiting" || row.state === "working";

/**
 * @param key under which this tab remembers it through a reload.
 * @param opened called with the workshop that an archive has become.
 */
export function useArchive(key: string, opened: (workshop: string) => void): ArchiveHeld {
  const [row, setRow] = useState<ArchiveRow | null>(null);
  const [moved, setMoved] = useState<number | null>(null);
  const [trouble, setTrouble] = useState("");
  const stopped = useRef(false);
  const [rest, setRest] = useState<(() => Promise<void>) | null>(null);
  const fetched = useRef(new Map<number, Blob>());
  const passage = { going: setMoved, stopped: () => stopped.current };

  const keep = useCallback(
    (next: ArchiveRow | null) => {
      setRow(next);
      if (next && next.state !== "failed") sessionStorage.setItem(key, next.id);
      else sessionStorage.removeItem(key);
    },
    [key],
  );
  /** Does a part of the way; what is left can be gone on with after a failure. */
  const tried = async (work: () => Promise<void>) => {
    setTrouble("");
    setRest(null);
    stopped.current = false;
    try {
      await work();
    } catch (error) {
      if (stopped.current) return;
      setTrouble(troubleText(error));
      setRest(() => work);
    } finally {
      setMoved(null);
    }
  };
  const follow = async (id: string): Promise<ArchiveRow | null> => {
    while (!stopped.current) {
      const next = await insistently(() => look(id), passage.stopped);
      if (stopped.current) return null;
      keep(next);
      if (!isUnderWay(next)) return next;
      await new Promise((resolve) => window.setTimeout(resolve, OFTEN_MS));
    }
    return null;
  };
  const fetchAll = async (id: string) => {
    const done = await follow(id);
    if (done?.state !== "done") return;
    const missing = numbersOf(done.size, done.piece).filter((number) => !fetched.current.has(number));
    const fetchOne = async (number: number) => {
      fetched.current.set(number, await pieceOf(id, number));
    };
    if (!(await inPieces(missing, fetchOne, passage))) return;
    const numbers = numbersOf(done.size, done.piece);
    saveBlob(done.name, new Blob(numbers.map((number) => fetched.current.get(number) as Blob)));
    fetched.current.clear();
    sessionStorage.removeItem(key);
  };
  const sendAll = async (id: string, file: File) => {
    const begun = await insistently(() => look(id), passage.stopped);
    const send = (number: number) =>
      sendPiece(id, number, file.slice(number * begun.piece, (number + 1) * begun.piece));
    if (!(await inPieces(begun.missing, send, passage))) return;
    setMoved(null);
    if (begun.state === "coming") await change(id, "open");
    await openAll(id);
  };
  const openAll = async (id: string) => {
    const done = await follow(id);
    if (done?.state !== "done" || !done.workshop) return;
    sessionStorage.removeItem(key);
    opened(done.workshop);
  };
  // What was begun before the page was loaded anew goes on.
  const resumed = useRef(false);
  useEffect(() => {
    if (resumed.current) return;
    resumed.current = true;
    const id = sessionStorage.getItem(key);
    if (!id) return;
    void tried(async () => {
      const known = await look(id).catch(() => null);
      keep(known);
      if (known && known.state !== "coming") await (known.direction === "out" ? fetchAll : openAll)(id);
    });
  });
  useEffect(
    () => () => {
      stopped.current = true;
    },
    [],
  );
  return {
    row,
    moved,
    trouble,
    goOn: rest && (() => tried(rest)),
    save: (workshop) =>
      tried(async () => {
        fetched.current.clear();
        const begun = await answer(
          api.POST("/api/workshops/{workshop}/archives/", { params: { path: { workshop } } }),
        );
        keep(begun);
        await fetchAll(begun.id);
      }),
    open: (file) =>
      tried(async () => {
        const goesOn = row?.state === "coming" && row.name === file.name && row.size === file.size;
        const begun = goesOn ? row : await begin(file);
        keep(begun);
        await tried(() => sendAll(begun.id, file));
      }),
    cancel: async () => {
      stopped.current = true;
      setRest(null);
      if (row) await change(row.id, "cancel").catch(() => undefined);
      keep(null);
      setTrouble("");
    },
  };
}

const begin = (file: File) =>
  answer(api.POST("/api/archives/", { body: { name: file.name, size: file.size } }));

const look = (archive: string) =>
  answer(api.GET("/api/archives/{archive}/", { params: { path: { archive } } }));

const change = (archive: string, todo: "open" | "cancel") =>
  answer(api.PATCH("/api/archives/{archive}/", { params: { path: { archive } }, body: { do: todo } }));

const pieceOf = (archive: string, number: number) =>
  answer(
    api.GET("/api/archives/{archive}/pieces/{number}/", {
      params: { path: { archive, number } },
      parseAs: "blob",
    }),
  ) as Promise<unknown> as Promise<Blob>;

const sendPiece = async (archive: string, number: number, piece: Blob) => {
  await answer(
    api.PUT("/api/archives/{archive}/pieces/{number}/", {
      params: { path: { archive, number } },
      body: piece as unknown as string,
      ...AS_BYTES,
    }),
  );
};
