/** Files kept on the device until the server has them, in the browser's database: its store has no room for them. */
import { del, get, set } from "idb-keyval";

/** Where there is no database, in a private window say, they stay as long as the page is open. */
const open = new Map<string, Blob>();

export async function keepFile(id: string, file: Blob): Promise<void> {
  open.set(id, file);
  await here(() => set(id, file));
}

export async function keptFile(id: string): Promise<Blob | undefined> {
  return open.get(id) ?? (await here(() => get<Blob>(id)));
}

export async function dropFile(id: string): Promise<void> {
  open.delete(id);
  await here(() => del(id));
}

async function here<T>(ask: () => Promise<T>): Promise<T | undefined> {
  try {
    return await ask();
  } catch {
    return undefined;
  }
}
