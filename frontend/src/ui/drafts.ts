/** Drafts in the browser's store, by account, vehicle and tab; what stands in them is the document's affair. */

const PREFIX = "ydrometer-draft";

export const draftKey = (account: string, vehicle: string, tab: string) =>
  [PREFIX, account, vehicle, tab].join("|");

/** Account, vehicle and tab of every draft in this browser. */
export function storedDrafts(): [string, string, string][] {
  const found = Object.keys(localStorage).filter((name) => name.startsWith(`${PREFIX}|`));
  return found.map((name) => {
    const [, account = "", vehicle = "", tab = ""] = name.split("|");
    return [account, vehicle, tab];
  });
}

/** How many drafts an account has in this browser. */
export function draftCount(account: string): number {
  return storedDrafts().filter(([of]) => of === account).length;
}

/** Drafts belong to an account and leave with it. */
export function dropAll(account: string): void {
  for (const [of, vehicle, tab] of storedDrafts())
    if (of === account) localStorage.removeItem(draftKey(of, vehicle, tab));
}
