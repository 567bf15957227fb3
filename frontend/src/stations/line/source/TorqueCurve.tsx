import { faultAt, useDocument, useEdit, useFigures } from "../../../document/context";
import { at } from "../../../document/document";
import { COPPER } from "../../../drawing/colours";
import { TextField } from "../../../ui/fields/TextField";
import { digits, useUnits } from "../../../ui/fields/units";
import { Plot } from "./Plot";
import { parsePoints, pointsText } from "./points";

/** Torque over speed: of a motor as the core draws it; of an engine by points that are typed, pasted or moved. */
export function TorqueCurve({ branch }: { branch: number }) {
  const path = `drive.branches[${branch}].source.torque_curve`;
  const document = useDocument();
  const { live, faults } = useFigures();
  const { set, readOnly } = useEdit();
  const units = useUnits();
  const speed = units.entry("angular speed")[units.system];
  const torque = units.entry("torque")[units.system];
  const curve = live.sources[branch] ?? { x: [], y: [] };
  const points = curve.x.map((x, i): [number, number] => [
    x / speed.factor,
    (curve.y[i] ?? 0) / torque.factor,
  ]);
  const typed = at(document, path) as [unknown, unknown][] | undefined;
  const move = (index: number, [x, y]: [number, number]) =>
    set(`${path}[${index}]`, [
      `${Number(x.toPrecision(4))} ${speed.typed}`,
      `${Number(y.toPrecision(3))} ${torque.typed}`,
    ]);
  return (
    <>
      <Plot
        label="Torque over speed"
        colour={COPPER}
        points={points}
        x={{ unit: speed.symbol, format: digits }}
        y={{ unit: torque.symbol, format: digits }}
        onMove={typed && !readOnly && typed.length === points.length ? move : undefined}
      />
      {typed && (
        <TextField
          label={`Points, one a line: speed (${speed.symbol}) and torque (${torque.symbol})`}
          lines={Math.min(8, typed.length + 1)}
          value={pointsText(typed)}
          fault={faultAt(faults, path)}
          readOnly={readOnly}
          onChange={(text) => set(path, parsePoints(text, speed.typed, torque.typed))}
        />
      )}
    </>
  );
}
