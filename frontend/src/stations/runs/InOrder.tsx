import { Box } from "@chakra-ui/react";
import { useWidth } from "../../drawing/useWidth";
import { offText } from "../../words/runs";
import { Axes } from "./Axes";
import { FRAME, scales, span } from "./plot";
import { Shown } from "./Shown";
import type { Judged } from "./words";

const HEIGHT = 190;
const INK = "var(--chakra-colors-ink)";
const SPRUCE = "var(--chakra-colors-spruce)";
const SECOND = "var(--chakra-colors-ink-second)";

/** Of how often as much as the largest now a run is far off, and what counts at least. */
const [FAR, LEAST] = [3, 0.02];

interface Props {
  runs: Judged[];
  chosen: ReadonlySet<string>;
  onChoose: (runs: string[]) => void;
}

/** Each run in order: how far off it was as designed and is now, on the band that one reading should lie in. A drift
 * shows as a slope. */
export function InOrder({ runs, chosen, onChoose }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(460);
  const part = runs.filter((run) => run.before !== null);
  const rows = part.map((run) => ({
    run,
    before: run.off,
    after: relative(run.mean, run.after),
    low: relative(run.low, run.after),
    high: relative(run.high, run.after),
  }));
  const frame = { ...FRAME, width, height: HEIGHT };
  // What is far off would press all others flat: it is drawn at the edge.
  const now = rows
    .filter((row) => !row.run.odd)
    .flatMap((row) => [row.after, row.low, row.high].map((v) => v ?? 0));
  const most = FAR * Math.max(...now.map(Math.abs), LEAST);
  const was = rows.map((row) => row.before ?? 0).filter((share) => Math.abs(share) <= most);
  const ys = [...now, ...was].map((share) => 100 * share);
  const at = scales(frame, [0.4, Math.max(2, rows.length) + 0.6], span([...ys, -2, 2]));
  const edge = (share: number) => at.y(Math.min(at.spanY[1], Math.max(at.spanY[0], 100 * share)));
  const wide = Math.min(12, (width - 60) / (2.4 * Math.max(1, rows.length)));
  return (
    <Shown
      title="Off the prediction, %, run by run"
      table={{
        heads: ["run", "what", "gearing", "as designed", "now"],
        rows: rows.map((row, k) => [
          String(k + 1),
          row.run.words,
          row.run.design,
          offText(row.before) || "–",
          offText(row.after) || "–",
        ]),
      }}
    >
      <Box ref={ref} minW="0">
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label="How far each run is off its prediction, in order"
        >
          <Axes
            frame={frame}
            at={at}
            unitX=""
            format={signed}
            formatX={(v) => (Number.isInteger(v) ? `${v}` : "")}
          />
          <path d={`M ${FRAME.left} ${at.y(0)} H ${width - FRAME.right}`} stroke={SECOND} />
          {rows.map((row, k) => (
            // biome-ignore lint/a11y/noStaticElementInteractions: the log has the same runs by keyboard
            <g key={row.run.key} onClick={() => onChoose([row.run.key])} style={{ cursor: "pointer" }}>
              {row.low !== null && row.high !== null && (
                <rect
                  x={at.x(k + 1) - wide / 2}
                  width={wide}
                  y={at.y(100 * row.high)}
                  height={Math.max(1, at.y(100 * row.low) - at.y(100 * row.high))}
                  fill={SPRUCE}
                  opacity={0.2}
                />
              )}
              {row.before !== null && !row.run.odd && (
                <circle cx={at.x(k + 1)} cy={edge(row.before)} r={3.6} fill="none" stroke={SECOND} data-was />
              )}
              {row.after !== null && (
                <circle
                  cx={at.x(k + 1)}
                  cy={edge(row.after)}
                  r={4.2}
                  fill={row.run.odd ? "var(--chakra-colors-panel)" : INK}
                  stroke={row.run.odd ? "var(--chakra-colors-brick)" : INK}
                  data-now
                />
              )}
              {row.run.odd && (
                <text x={at.x(k + 1) + 7} y={edge(row.after ?? 0) + 12} fontSize={12} fill={INK}>
                  {offText(row.after)}
                </text>
              )}
              {chosen.has(row.run.key) && row.after !== null && (
                <circle
                  cx={at.x(k + 1)}
                  cy={edge(row.after)}
                  r={9}
                  fill="none"
                  stroke={INK}
                  strokeWidth={1.6}
                />
              )}
            </g>
          ))}
        </svg>
      </Box>
      <Box fontSize="12.5px" color="ink.second">
        Filled: with what was learnt, on the band of one reading; open: as designed. The oldest run is on the
        left.
      </Box>
    </Shown>
  );
}

const relative = (value: number | null, to: number | null) =>
  value === null || to === null || to === 0 ? null : value / to - 1;

const signed = (value: number) => `${value > 0 ? "+" : value < 0 ? "−" : ""}${Math.abs(value)}`;
