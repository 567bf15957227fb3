import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { copyText } from "../../ui/copying";
import { type Band, Chart, type Notch } from "./Chart";
import { type At, Cursor } from "./Cursor";
import { csv, readings, type Series } from "./curves";

export interface ChartData {
  title: string;
  /** What its cursor runs along. */
  axis: keyof At;
  scale: number;
  x: { words: string; unit: string; max: number };
  y: { max?: number };
  series: Series[];
  notches: Notch[];
  bands: Band[];
}

const ROWS = 12;
const CSV_ROWS = 100;

/** A chart with its cursor, its table, and its numbers for a spreadsheet. */
export function ChartPanel({
  data,
  height,
  format,
}: {
  data: ChartData;
  height: number;
  format: (v: number) => string;
}) {
  const [table, setTable] = useState(false);
  const [copied, setCopied] = useState(false);
  const { title, x, y, series, notches, bands } = data;
  const head = `${x.words}, ${x.unit}`;
  const copy = async () => {
    await copyText(csv(head, series, x.max, CSV_ROWS));
    setCopied(true);
  };
  return (
    <Box
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="3px"
      pt="1"
      minW="0"
      as="section"
      aria-label={title}
    >
      <Flex px="2" gap="2" fontSize="12.5px" align="baseline">
        <Box
          as="h2"
          fontFamily="mono"
          fontSize="12.5px"
          fontWeight="400"
          color="ink.second"
          flex="1"
          minW="0"
        >
          {title}
        </Box>
        <button
          type="button"
          className="quiet"
          aria-pressed={table}
          onClick={() => setTable(!table)}
          data-screen-only
        >
          table
        </button>
        <button
          type="button"
          className="quiet"
          onClick={() => void copy()}
          onBlur={() => setCopied(false)}
          data-screen-only
        >
          {copied ? "copied" : "CSV"}
        </button>
      </Flex>
      {table ? (
        <Readings head={head} data={data} format={format} height={height} />
      ) : (
        <Box position="relative" data-chart={title}>
          <Chart {...{ height, x, y, series, notches, bands, format }} />
          <Cursor
            axis={data.axis}
            label={title}
            scale={data.scale}
            max={x.max}
            unit={x.unit}
            series={series}
            format={format}
          />
        </Box>
      )}
    </Box>
  );
}

function Readings({
  head,
  data,
  format,
  height,
}: {
  head: string;
  data: ChartData;
  format: (v: number) => string;
  height: number;
}) {
  const { series, x } = data;
  return (
    <Box overflow="auto" maxH={`${height}px`} px="2" tabIndex={0}>
      <table className="working rows">
        <caption className="visually-hidden">{data.title}</caption>
        <thead>
          <tr>
            {[head, ...series.map((s) => s.name)].map((name) => (
              <th key={name} scope="col">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {readings(series, x.max, ROWS).map((row) => (
            <tr key={row.x}>
              <td>{format(row.x)}</td>
              {row.values.map((value, i) => (
                <td key={series[i]?.key}>{value === null ? "–" : format(value)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}
