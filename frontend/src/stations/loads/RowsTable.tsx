import { Box } from "@chakra-ui/react";
import type { Loads } from "../../api/client";
import { useUnits } from "../../ui/fields/units";
import { percent, STATE_WORDS } from "../../words/loads";
import { against } from "./words";

/** All rows as text: what the bars and the drawing say. */
export function RowsTable({ loads }: { loads: Loads }) {
  const units = useUnits();
  return (
    <Box overflowX="auto" tabIndex={0} role="region" aria-label="All checks as a table" data-loads-table>
      <table className="working">
        <caption className="visually-hidden">What each part has to stand, and does</caption>
        <thead>
          <tr>
            {["Part", "Check", "Moment", "Use", "Demand of capacity", "State"].map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {loads.parts.flatMap((part) =>
            part.rows.map((row) => (
              <tr key={`${row.check} ${row.path} ${row.member} ${row.moment}`}>
                <th scope="row">{row.part}</th>
                <th scope="row">{row.title}</th>
                <th scope="row">{row.moment}</th>
                <td>{row.use === null ? "–" : percent(row.use)}</td>
                <td>{against(units, row)}</td>
                <th scope="row">{STATE_WORDS[row.state]}</th>
              </tr>
            )),
          )}
        </tbody>
      </table>
    </Box>
  );
}
