/** Files kept on the device until the server has them, in the browser's database: its store has no room for them. */
import { del, delMany, get, keys, set } from "idb-keyval";

/** Where there is no database, in a private window say, they stay as long as the page is open. */
const open = new Map<string, Blob>();

export async function keepFile(key: string, file: Blob): Promise<void> {
  open.set(key, file);
  await here(() => set(key, file));
}

export async function keptFile(key: string): Promise<Blob | undefined> {
  return open.get(key) ?? (await here(() => get<Blob>(key)));
}

export async function dropFile(key: string): Promise<void> {
  open.delete(key);
  await here(() => del(key));
}

/** Take away all files whose keys begin so. */
export async function dropFiles(beginning: string): Promise<void> {
  const begins = (key: unknown): key is string => String(key).startsWith(beginning);
  for (const key of [...open.keys()].filter(begins)) open.delete(key);
  await here(async () => delMany((await keys()).filter(begins)));
}

async function here<T>(ask: () => Promise<T>): Promise<T | undefined> {
  try {
    return await ask();
  } catch {
    return undefined;
  }
}
