/** What a vehicle is opened with: its newest revision, or what was typed on it in this browser and never saved. */
import { type Draft, dropDraft, type Left, leftBehind, readDraft, tabName } from "./draft";
import { type Base, vehicleNow } from "./seen";
import { clean } from "./useAutosave";

export interface Opened {
  workshop: string;
  role: string;
  scratch: boolean;
  tab: string;
  stored: Base;
  /** To go on with: this tab's own, else the only one that a tab which is gone has left. */
  draft: Draft | null;
  /** To ask about. */
  left: Left[];
}

export async function open(account: string, vehicle: string): Promise<Opened> {
  const reply = await vehicleNow(vehicle);
  const { stored } = reply;
  const tab = await tabName();
  const opened = { ...reply, tab };
  if (reply.role === "viewer") return { ...opened, draft: null, left: [] };
  const left = (await leftBehind(account, vehicle, tab)).filter((draft) => {
    const same = clean(stored, draft.document);
    if (same) dropDraft(account, vehicle, draft.tab);
    return !same;
  });
  const own = readDraft(account, vehicle, tab);
  if (own) return { ...opened, draft: clean(stored, own.document) ? null : own, left };
  const only = left.length === 1 && left[0]?.base === stored.number ? left[0] : null;
  if (only) dropDraft(account, vehicle, only.tab);
  return { ...opened, draft: only, left: only ? [] : left };
}
