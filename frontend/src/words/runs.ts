/** Runs in words, as all screens tell them. Pure. */

/** "+4.1 %", "−0.6 %"; empty where nothing was predicted. */
export function offText(off: number | null | undefined): string {
  if (off === null || off === undefined) return "";
  const share = 100 * off;
  return `${share < 0 ? "−" : "+"}${Math.abs(share).toFixed(1)} %`;
}
