import { Box, Flex } from "@chakra-ui/react";
import type { CSSProperties } from "react";
import type { Standing, Sweep } from "../../api/client";
import { useEdit, useFigures } from "../../document/context";
import { withValues } from "../../document/document";
import { digits, show, type Units, useUnits } from "../../ui/fields/units";
import { gaugeLabel } from "../../ui/readout/Readout";
import { StandingMark } from "../../ui/StandingMark";

type Column = Sweep["columns"][number];

/** Every gauge at sizes of what is selected below and above its own. */
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
      minH="116px"
      overflowX="auto"
      data-sweep
    >
      {sweep && selected ? (
        <>
          <Choices sweep={sweep} />
          <SweepTable sweep={sweep} />
        </>
      ) : (
        <Box color="ink.second" p="1">
          Choose a wheel, the motor or the supply to see what six sizes below and above it would do.
        </Box>
      )}
    </Box>
  );
}

/** What else can be swept where more than one thing can. */
function Choices({ sweep }: { sweep: Sweep }) {
  const edit = useEdit();
  if (sweep.choices.length < 2) return null;
  return (
    <Flex gap="3" role="tablist" aria-label="What is swept" fontSize="xs" mb="1">
      {sweep.choices.map(({ key, words }) => (
        <button
          key={key}
          type="button"
          role="tab"
          className="tab"
          aria-selected={key === sweep.of}
          onClick={() => edit.sweep(key)}
        >
          {words}
        </button>
      ))}
    </Flex>
  );
}

/** Makes the design one of a column's size. */
export function useTake(): (sweep: Sweep, column: Column) => void {
  const { edit, set } = useEdit();
  const units = useUnits();
  return (sweep, column) => {
    const [change, ...more] = Object.values(column.changes);
    if (change === undefined) return;
    // A plain length is written in the unit on display.
    const plain = sweep.dimension === "length" && !column.words;
    if (sweep.place && more.length === 0) set(sweep.place, plain ? typedSize(column.size, units) : change);
    else edit((old) => withValues(old, absent(column.changes)));
  };
}

/** Over the wire what is to go is null. */
const absent = (changes: Column["changes"]) =>
  Object.fromEntries(Object.entries(changes).map(([path, value]) => [path, value ?? undefined]));

/** Plain elements: there are a hundred cells, painted anew with each key press. */
function SweepTable({ sweep }: { sweep: Sweep }) {
  const { live } = useFigures();
  const { readOnly } = useEdit();
  const take = useTake();
  const units = useUnits();
  const here = (column: number) => (column === sweep.here ? "here" : undefined);
  const rows = live.gauges
    .map((gauge, row) => ({ gauge, row }))
    .filter(({ gauge, row }) => gauge.target !== null || row < 3);
  const longest = Math.max(
    ...sweep.columns.flatMap(({ values }) =>
      rows.map(({ gauge, row }) => show(units, gauge.dimension, values?.[row]?.value ?? 0).number.length),
    ),
  );
  const unit = sweep.dimension && show(units, sweep.dimension, 0).unit;
  const head = unit ? `${sweep.words}, ${unit}` : sweep.words;
  return (
    <table
      className="sweep"
      style={{ "--columns": sweep.columns.length, "--longest": longest } as CSSProperties}
    >
      <caption className="visually-hidden">Sweep of {head}: each target at other sizes</caption>
      <thead>
        <tr>
          <th scope="row" title={head}>
            {head}
          </th>
          {sweep.columns.map((column, i) => (
            <th key={`${column.size} ${column.words}`} scope="col" className={here(i)}>
              <button
                type="button"
                disabled={readOnly || column.values === null}
                onClick={() => take(sweep, column)}
                aria-label={`Take ${spoken(sweep, column, units)}`}
                title={column.words || undefined}
                aria-current={i === sweep.here ? "true" : undefined}
              >
                {sizeText(sweep, column, units)}
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
                  <td key={`${column.size} ${column.words}`} className={here(i)}>
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
            <td key={`${column.size} ${column.words}`} className={here(i)}>
              {column.ratio === null ? "–" : digits(units.reducing ? column.ratio : 1 / column.ratio)}
            </td>
          ))}
        </tr>
      </tbody>
    </table>
  );
}

const sizeText = (sweep: Sweep, { size }: Column, units: Units) =>
  sweep.dimension ? show(units, sweep.dimension, size).number : String(size);

/** "14 teeth", "125 mm", or a part by its name. */
function spoken(sweep: Sweep, column: Column, units: Units): string {
  if (column.words) return column.words;
  const unit = sweep.dimension ? show(units, sweep.dimension, 0).unit : sweep.words.split(", ").pop();
  return `${sizeText(sweep, column, units)} ${unit}`;
}

/** A length as it is written into the document, in the unit on display. */
export function typedSize(size: number, units: Units): string {
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
