import { Box } from "@chakra-ui/react";
import type { CSSProperties } from "react";
import type { Standing, Sweep } from "../../api/client";
import { useEdit, useFigures } from "../../document/context";
import { digits, show, type Units, useUnits } from "../../ui/fields/units";
import { gaugeLabel } from "../../ui/readout/Readout";
import { StandingMark } from "../../ui/StandingMark";

/** Every gauge at six sizes of the selected wheel below and above, the present one in the middle. */
export function SweepStrip() {
  const { sweep, selected } = useFigures();
  return (
    <Box
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="3px"
      px="2"
      py="1"
      minH="146px"
      overflowX="auto"
      data-sweep
    >
      {sweep && selected ? (
        <SweepTable sweep={sweep} />
      ) : (
        <Box color="ink.second" p="1">
          Choose a wheel in the drawing to see what six sizes below and above it would do.
        </Box>
      )}
    </Box>
  );
}

/** Plain elements: there are a hundred cells, painted anew with each key press. */
function SweepTable({ sweep }: { sweep: Sweep }) {
  const { live } = useFigures();
  const { set, readOnly } = useEdit();
  const units = useUnits();
  const middle = (sweep.columns.length - 1) / 2;
  const here = (column: number) => (column === middle ? "here" : undefined);
  const rows = live.gauges
    .map((gauge, row) => ({ gauge, row }))
    .filter(({ gauge, row }) => gauge.target !== null || row < 3);
  const longest = Math.max(
    ...sweep.columns.flatMap(({ values }) =>
      rows.map(({ gauge, row }) => show(units, gauge.dimension, values?.[row]?.value ?? 0).number.length),
    ),
  );
  return (
    <table
      className="sweep"
      style={{ "--columns": sweep.columns.length, "--longest": longest } as CSSProperties}
    >
      <caption className="visually-hidden">
        Sweep of the {sweep.member} wheel: each target at other tooth counts
      </caption>
      <thead>
        <tr>
          <th scope="row">
            {sweep.member}, {sweep.toothed ? "teeth" : show(units, "length", 0).unit}
          </th>
          {sweep.columns.map((column, i) => (
            <th key={column.size} scope="col" className={here(i)}>
              <button
                type="button"
                disabled={readOnly || column.values === null}
                onClick={() => set(sweep.place, typedSize(column.size, sweep.toothed, units))}
                aria-label={`Take ${sizeText(column.size, sweep.toothed, units)} ${sweep.toothed ? "teeth" : show(units, "length", 0).unit}`}
                aria-current={i === middle ? "true" : undefined}
              >
                {sizeText(column.size, sweep.toothed, units)}
              </button>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ gauge, row }) => {
          const { unit } = show(units, gauge.dimension, gauge.value);
          const name = gaugeLabel(gauge, units);
          return (
            <tr key={`${gauge.measure} ${gauge.target}`}>
              <th scope="row" title={name}>
                {unit ? `${name}, ${unit}` : name}
              </th>
              {sweep.columns.map((column, i) => {
                const cell = column.values?.[row];
                return (
                  <td key={column.size} className={here(i)}>
                    {cell ? (
                      <Cell
                        text={show(units, gauge.dimension, cell.value).number}
                        standing={gauge.target === null ? null : cell.standing}
                      />
                    ) : (
                      "–"
                    )}
                  </td>
                );
              })}
            </tr>
          );
        })}
        <tr className="quiet">
          <th scope="row">overall</th>
          {sweep.columns.map((column, i) => (
            <td key={column.size} className={here(i)}>
              {column.ratio === null ? "–" : digits(units.reducing ? column.ratio : 1 / column.ratio)}
            </td>
          ))}
        </tr>
      </tbody>
    </table>
  );
}

const sizeText = (size: number, toothed: boolean, units: Units) =>
  toothed ? String(size) : show(units, "length", size).number;

/** A size as it is written into the document: teeth, or a length in the unit on display. */
export function typedSize(size: number, toothed: boolean, units: Units): number | string {
  if (toothed) return size;
  const { factor, typed } = units.entry("length")[units.system];
  return `${Number((size / factor).toPrecision(5))} ${typed}`;
}

function Cell({ text, standing }: { text: string; standing: Standing | null }) {
  return (
    <span className={standing === "misses" ? "cell missed" : "cell"}>
      {standing && <StandingMark standing={standing} size={8} />}
      {text}
    </span>
  );
}
