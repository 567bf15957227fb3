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

export function withEntry(board: Board, name: string, vehicle: string): Board {
  const id = `t${1 + Math.max(0, ...board.entries.map((one) => Number(one.id.slice(1)) || 0))}`;
  return { ...board, entries: [...board.entries, { id, name, ...(vehicle ? { vehicle } : {}) }] };
}

/** Whoever has run stays: what was run would be about nobody. */
export const mayLeave = (board: Board, id: string) => !board.heats.some((heat) => heat.entries.includes(id));

export const withoutEntry = (board: Board, id: string): Board => ({
  ...board,
  entries: board.entries.filter((one) => one.id !== id),
});

export const withHeat = (board: Board, heat: Heat): Board => ({ ...board, heats: [...board.heats, heat] });

export const withoutHeat = (board: Board, place: number): Board => ({
  ...board,
  heats: board.heats.filter((_, i) => i !== place),
});
