import { Box, Flex } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";
import { saveText } from "../../document/files";

export interface Table {
  heads: string[];
  rows: string[][];
}

interface Props {
  title: string;
  /** The same as text. */
  table: Table;
  children: ReactNode;
}

/** A chart under its name, with its figures as a table one key away, and as CSV. */
export function Shown({ title, table, children }: Props) {
  const [asTable, setAsTable] = useState(false);
  return (
    <Box as="section" aria-label={title} minW="0" data-shown={title}>
      <Flex gap="2" align="baseline" fontSize="12.5px">
        <Box as="h3" fontFamily="mono" fontWeight="400" color="ink.second" flex="1" minW="0">
          {title}
        </Box>
        <button
          type="button"
          className="quiet"
          aria-pressed={asTable}
          onClick={() => setAsTable(!asTable)}
          data-screen-only
        >
          table
        </button>
        <button
          type="button"
          className="quiet"
          onClick={() => saveText(`${title}.csv`, "text/csv", csv(table))}
          data-screen-only
        >
          CSV
        </button>
      </Flex>
      {asTable ? <Rows title={title} table={table} /> : children}
    </Box>
  );
}

function Rows({ title, table }: { title: string; table: Table }) {
  return (
    <Box overflow="auto" maxH="300px" tabIndex={0} role="region" aria-label={`${title}, as a table`}>
      <table className="working rows">
        <caption className="visually-hidden">{title}</caption>
        <thead>
          <tr>
            {table.heads.map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row) => (
            <tr key={row.join("|")}>
              {row.map((cell, k) => (
                <td key={table.heads[k]}>{cell}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}

export function csv({ heads, rows }: Table): string {
  const cell = (text: string) => (/[",\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
  return `${[heads, ...rows].map((row) => row.map(cell).join(",")).join("\n")}\n`;
}
