import { Box } from "@chakra-ui/react";
import { type KeyboardEvent, memo } from "react";
import type { LoadedPart } from "../../api/client";
import { StandingMark } from "../../ui/StandingMark";
import { percent, STANDS } from "../../words/loads";
import { shareOf } from "./words";

/** Bars go a little beyond the limit; what is far beyond is cut, and its number says how far. */
const MOST = 1.8;
/** Pixels of a row, which the limit goes through, and of its bar. */
const HIGH = 36;
const THICK = 13;
export const COLOURS = { ok: "spruce", near: "ochre", over: "brick", unknown: "line" } as const;

interface Props {
  parts: LoadedPart[];
  moment: string;
  chosen: string | null;
  onChoose: (part: LoadedPart) => void;
  /** Keys besides those that walk from bar to bar. */
  onKey: (event: KeyboardEvent) => void;
}

export const partKey = (part: LoadedPart) => `${part.path} ${part.title}`;

/** One bar a part in the order of the line, and the limit as one line through all of them. */
export const Bars = memo(function Bars({ parts, moment, chosen, onChoose, onKey }: Props) {
  return (
    <Box
      as="ol"
      listStyleType="none"
      m="0"
      p="0"
      onKeyDown={(event) => walk(event) || onKey(event)}
      data-bars
    >
      {parts.map((part) => (
        <li key={partKey(part)}>
          <button
            type="button"
            className="row"
            aria-pressed={chosen === partKey(part)}
            onClick={() => onChoose(part)}
            style={ROW}
            data-part={part.title}
            data-state={part.state}
          >
            <StandingMark standing={STANDS[part.state]} />
            <Box
              as="span"
              textAlign="left"
              overflow="hidden"
              textOverflow="ellipsis"
              whiteSpace="nowrap"
              _firstLetter={{ textTransform: "uppercase" }}
            >
              {part.title}
            </Box>
            <Bar part={part} use={shareOf(part, moment)} moment={moment} />
            <Box as="span" fontFamily="mono" fontWeight="700" fontSize="xl" textAlign="right" data-use>
              <Use part={part} moment={moment} />
            </Box>
          </button>
        </li>
      ))}
    </Box>
  );
});

/** Arrows go to the bar above or below; whether the key was one of them. */
function walk(event: KeyboardEvent): boolean {
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (by === undefined || event.ctrlKey || event.metaKey || event.altKey) return false;
  const bars = [...document.querySelectorAll<HTMLElement>("[data-bars] button")];
  bars[bars.indexOf(document.activeElement as HTMLElement) + by]?.focus();
  event.preventDefault();
  return true;
}

const ROW = {
  display: "grid",
  gridTemplateColumns: "16px minmax(84px, 27%) minmax(60px, 1fr) 84px",
  gap: "10px",
  alignItems: "center",
  width: "100%",
  padding: "0 6px",
} as const;

function Use({ part, moment }: { part: LoadedPart; moment: string }) {
  const use = shareOf(part, moment);
  if (use !== null) return percent(use);
  return <span title="not known">{part.state === "over" ? "over" : "–"}</span>;
}

/** What would settle a part of which nothing is known. */
function wanted(part: LoadedPart): string {
  const [first] = part.rows.flatMap((row) => row.needs);
  return first ? `wants ${first.words}` : "";
}

/** Share of the limit as a bar; other moments as strokes on it; dashes where nobody knows. */
function Bar({ part, use, moment }: { part: LoadedPart; use: number | null; moment: string }) {
  const across = (value: number) => `${(100 * Math.min(value, MOST)) / MOST}%`;
  const others = part.rows[0]?.marks ?? [];
  return (
    <svg width="100%" height={HIGH} aria-hidden="true" style={{ display: "block" }}>
      {use === null ? (
        <line
          x1="0"
          x2={across(1)}
          y1={HIGH / 2}
          y2={HIGH / 2}
          stroke="var(--chakra-colors-ink-second)"
          strokeWidth="1.5"
          strokeDasharray="5 5"
        />
      ) : (
        <rect
          x="0"
          y={(HIGH - THICK) / 2}
          width={across(use)}
          height={THICK}
          fill={`var(--chakra-colors-${COLOURS[part.state]})`}
          opacity="0.85"
        />
      )}
      {!moment &&
        others.map((mark) => (
          <line
            key={mark.moment}
            x1={across(mark.use)}
            x2={across(mark.use)}
            y1={(HIGH - THICK) / 2 - 3}
            y2={(HIGH + THICK) / 2 + 3}
            stroke="var(--chakra-colors-ink)"
            strokeWidth="1.5"
          >
            <title>{`${mark.moment}: ${percent(mark.use)}`}</title>
          </line>
        ))}
      {part.mark !== null && !moment && (
        <line
          x1={across(part.mark)}
          x2={across(part.mark)}
          y1={(HIGH - THICK) / 2 - 6}
          y2={(HIGH + THICK) / 2 + 6}
          stroke="var(--chakra-colors-ink-second)"
          strokeWidth="2"
          strokeDasharray="3 2"
          data-mark
        >
          <title>{`the mark: ${percent(part.mark)}`}</title>
        </line>
      )}
      {use === null && (
        <text
          x={across(1)}
          dx="8"
          y={HIGH / 2 + 4}
          fontSize="12.5"
          fill="var(--chakra-colors-ink-second)"
          data-wanted
        >
          {wanted(part)}
        </text>
      )}
      <line
        x1={across(1)}
        x2={across(1)}
        y1="0"
        y2={HIGH}
        stroke="var(--chakra-colors-ink)"
        strokeWidth="2"
      />
    </svg>
  );
}
