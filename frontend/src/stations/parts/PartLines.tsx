import { Box } from "@chakra-ui/react";
import { type KeyboardEvent, useRef } from "react";
import type { PartLine } from "../../api/client";
import { money } from "../../ui/money";
import { StandingMark } from "../../ui/StandingMark";
import type { Say } from "./useSaying";
import { STATES, source, standing } from "./words";

interface Props {
  lines: PartLine[];
  chosen: string;
  onChoose: (key: string) => void;
  onSay: Say | null;
}

/** One row a thing needed; arrow keys walk along them, a state is one click away. */
export function PartLines({ lines, chosen, onChoose, onSay }: Props) {
  const table = useRef<HTMLTableElement>(null);
  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!step || (event.target as HTMLElement).tagName === "SELECT") return;
    event.preventDefault();
    const at = lines.findIndex((line) => line.key === chosen);
    const next = Math.min(lines.length - 1, Math.max(0, at + step));
    onChoose(lines[next]?.key ?? "");
    table.current?.querySelectorAll<HTMLElement>("tbody tr")[next]?.querySelector("button")?.focus();
  };
  return (
    <Box overflowX="auto" onKeyDown={onKeyDown}>
      <table className="parts" ref={table}>
        <caption className="visually-hidden">What the design needs</caption>
        <thead>
          <tr>
            <th scope="col">what, and where it goes</th>
            <th scope="col">number</th>
            <th scope="col">from</th>
            <th scope="col">price</th>
            <th scope="col">state</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr
              key={line.key}
              data-line={line.key}
              data-state={line.state}
              aria-current={line.key === chosen || undefined}
            >
              <th scope="row">
                <button type="button" onClick={() => onChoose(line.key)}>
                  <StandingMark standing={standing(line)} />
                  <span>
                    <b>{line.words}</b>
                    <small>
                      {line.where}
                      {line.which && <i> · which?</i>}
                      {line.make.length > 0 && <i>{` · to do: ${line.make.length}`}</i>}
                    </small>
                  </span>
                </button>
              </th>
              <td className="figure">{line.number}</td>
              <td>{source(line)}</td>
              <td className="figure">{priceText(line)}</td>
              <td>
                <select
                  className="plain small"
                  aria-label={`State of ${line.words}`}
                  value={line.state}
                  disabled={!onSay}
                  onChange={(event) => onSay?.(line, { state: event.target.value as PartLine["state"] })}
                  title={line.by ? `said by ${line.by}` : undefined}
                >
                  {STATES.map(([state, words]) => (
                    <option key={state} value={state}>
                      {words}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}

/** What was paid, else what it would cost; a dash where that is not known. */
function priceText(line: PartLine): string {
  if (line.state !== "needed" && line.paid !== null) return money(line.paid);
  if (line.to_buy === 0) return "";
  return line.price === null ? "–" : money(line.price);
}
