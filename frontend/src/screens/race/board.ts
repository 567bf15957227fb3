/** A race board's document, and its changes. Pure. */

export interface Entry {
  id: string;
  name: string;
  vehicle?: string;
}

export interface Heat {
  round: number;
  entries: string[];
  times: (string | number | null)[];
  revisions?: (number | null)[];
}

export interface Board {
  format: "ydrometer-race";
  version: 1;
  name: string;
  distance: string;
  lanes: number;
  mode: "knockout" | "everyone";
  entries: Entry[];
  heats: Heat[];
}

export const MODES: Record<Board["mode"], string> = {
  knockout: "knockout",
  everyone: "everyone against everyone",
};

/** As it came from the server, with what may be left out. */
export const boardOf = (document: Record<string, unknown>): Board =>
  ({ heats: [], entries: [], ...document }) as unknown as Board;

/** Whoever has run stays: what was run would be about nobody. */
export const mayLeave = (board: Board, id: string) => !board.heats.some((heat) => heat.entries.includes(id));

/** One thing that somebody does with a board, upon whatever state it is in, and its way back. */
export interface Change {
  /** What of it would be lost if it were refused. */
  words: string;
  apply: (board: Board) => Board;
  revert: (board: Board) => Board;
}

export function entering(name: string, vehicle: string): Change {
  let id = "";
  return {
    words: name,
    apply: (board) => {
      id = `t${1 + Math.max(0, ...board.entries.map((entry) => Number(entry.id.slice(1)) || 0))}`;
      return { ...board, entries: [...board.entries, { id, name, ...(vehicle ? { vehicle } : {}) }] };
    },
    revert: (board) => (mayLeave(board, id) ? without(board, id) : board),
  };
}

export function leaving(entry: Entry): Change {
  return {
    words: entry.name,
    apply: (board) => (mayLeave(board, entry.id) ? without(board, entry.id) : board),
    revert: (board) => ({ ...board, entries: [...without(board, entry.id).entries, entry] }),
  };
}

export function running(heat: Heat, names: ReadonlyMap<string, string>): Change {
  return {
    words: heatWords(heat, names),
    apply: (board) => ({ ...board, heats: [...board.heats, heat] }),
    revert: (board) => withoutHeat(board, heat),
  };
}

export function striking(heat: Heat, place: number, names: ReadonlyMap<string, string>): Change {
  return {
    words: heatWords(heat, names),
    apply: (board) => withoutHeat(board, heat),
    revert: (board) => ({ ...board, heats: board.heats.toSpliced(place, 0, heat) }),
  };
}

/** Who took how long. */
export const heatWords = ({ entries, times }: Heat, names: ReadonlyMap<string, string>): string =>
  entries.map((id, lane) => `${names.get(id) ?? id} ${times[lane] ?? "did not finish"}`).join(" · ");

const without = (board: Board, id: string): Board => ({
  ...board,
  entries: board.entries.filter((entry) => entry.id !== id),
});

/** The last one of these times: others may have been written down or struck out meanwhile. */
function withoutHeat(board: Board, heat: Heat): Board {
  const place = board.heats.map(run).lastIndexOf(run(heat));
  return place < 0 ? board : { ...board, heats: board.heats.toSpliced(place, 1) };
}

const run = ({ round, entries, times }: Heat) => JSON.stringify([round, entries, times]);
