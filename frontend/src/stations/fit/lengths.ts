/** Lengths as a fitter wants them: to the hundredth of a millimetre, or the thousandth of an inch. */
import type { Units } from "../../ui/fields/units";

const PLACES: Record<string, number> = { mm: 2, in: 3 };

export function lengthText(units: Units, metres: number): string {
  const { factor, symbol } = units.entry("length")[units.system];
  const number = (metres / factor).toFixed(PLACES[symbol] ?? 3).replace("-", "−");
  return `${number.replace(/\.?0+$/, "")} ${symbol}`;
}
