import { useFigures } from "../../../document/context";
import { COPPER } from "../../../drawing/colours";
import { digits, useUnits } from "../../../ui/fields/units";
import { Plot } from "./Plot";

/** Current over voltage of the supply. */
export function SupplyCurve() {
  const { live } = useFigures();
  const units = useUnits();
  if (!live.supply) return null;
  const { x, y } = live.supply;
  return (
    <Plot
      label="Current over voltage"
      colour={COPPER}
      points={x.map((v, i): [number, number] => [v, y[i] ?? 0])}
      x={{ unit: units.entry("voltage").metric.symbol, format: digits }}
      y={{ unit: units.entry("current").metric.symbol, format: digits }}
    />
  );
}
