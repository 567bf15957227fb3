/** A price with as many decimals as it has, two at most; the currency is the user's own. */
export function money(price: number): string {
  return String(Number(price.toFixed(2)));
}

/** A count with its thousands apart. */
export function whole(count: number): string {
  return count.toLocaleString("en").replaceAll(",", "\u202f");
}
