/** What is said beside the design: event, people, own steps and lines. What others have changed is never overwritten. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { answer, api, type Refusal, refusalText } from "../api/client";

export interface OwnStep {
  id: string;
  title: string;
  after?: string;
  minutes?: string;
  wait?: string;
  record?: string;
  unit?: string;
}

export interface OwnLine {
  id: string;
  words: string;
  number?: number | string;
  price?: number | string;
  mass?: string;
  lead_time?: string;
}

export interface Book {
  event?: string;
  people?: number;
  hours?: number[];
  budget?: number | string;
  weighed?: string;
  lines?: OwnLine[];
  steps?: OwnStep[];
}

export interface BookOf {
  book: Book;
  /** Change it; true where that was taken. On a refusal the words stand in `trouble`. */
  change: (how: (book: Book) => Book) => Promise<boolean>;
  trouble: string;
}

export function useBook(vehicle: string): BookOf {
  const queries = useQueryClient();
  const [trouble, setTrouble] = useState("");
  const key = ["book", vehicle];
  const read = useQuery({ queryKey: key, queryFn: () => kept(vehicle) });
  const change = useCallback(
    async (how: (book: Book) => Book) => {
      setTrouble("");
      // What somebody else has said meanwhile stays: the change is made once more, to their book.
      for (let tries = 0; tries < 3; tries++) {
        const known = await queries.ensureQueryData({
          queryKey: ["book", vehicle],
          queryFn: () => kept(vehicle),
        });
        const { data, error, response } = await put(vehicle, known.version, how(known.book as Book));
        if (data) {
          queries.setQueryData(["book", vehicle], data);
          void queries.invalidateQueries({ queryKey: ["pulse", vehicle] });
          return true;
        }
        if (response.status !== 409) {
          setTrouble(refusalText(error as Refusal));
          return false;
        }
        await queries.refetchQueries({ queryKey: ["book", vehicle] });
      }
      return false;
    },
    [queries, vehicle],
  );
  return { book: (read.data?.book ?? {}) as Book, change, trouble };
}

const kept = (vehicle: string) =>
  answer(api.GET("/api/vehicles/{vehicle}/build/book/", { params: { path: { vehicle } } }));

async function put(vehicle: string, base: number, book: Book) {
  try {
    return await api.PUT("/api/vehicles/{vehicle}/build/book/", {
      params: { path: { vehicle } },
      body: { base, book: book as Record<string, unknown> },
    });
  } catch {
    return {
      data: undefined,
      error: { detail: "There is no connection: try again." },
      response: new Response(null, { status: 599 }),
    };
  }
}
