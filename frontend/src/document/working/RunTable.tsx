import type { Working } from "../../api/client";
import { show, useUnits } from "../../ui/fields/units";

/** The rows of a run, as the core sums them up. */
export function RunTable({ columns }: { columns: Working["table"] }) {
  const units = useUnits();
  const rows = columns[0]?.values.length ?? 0;
  return (
    <table className="working rows">
      <thead>
        <tr>
          {columns.map((column) => (
            <th key={column.symbol} scope="col">
              {column.words}, {show(units, column.dimension, 0).unit}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {Array.from({ length: rows }, (_, row) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a row is its place in the run
          <tr key={row}>
            {columns.map((column) => (
              <td key={column.symbol}>{show(units, column.dimension, column.values[row]).number}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
