import { ticks } from "d3-array";
import type { Frame, Scales } from "./plot";

interface Props {
  frame: Frame;
  at: Scales;
  unitX: string;
  format: (value: number) => string;
  formatX?: (value: number) => string;
}

/** A mark nearer to the right edge ends there. */
const ROOM = 30;

/** Marks along both sides with their units, and lines across. */
export function Axes({ frame, at, unitX, format, formatX = format }: Props) {
  const { width, height, left, right, top, bottom } = frame;
  const across = ticks(...at.spanX, Math.max(3, Math.floor(width / 90)));
  const up = ticks(...at.spanY, Math.max(3, Math.floor(height / 44)));
  return (
    <>
      {up.map((value) => (
        <g key={value}>
          <path d={`M ${left} ${at.y(value)} H ${width - right}`} className="gridline" />
          <text x={left - 5} y={at.y(value) + 4} textAnchor="end" className="axis">
            {format(value)}
          </text>
        </g>
      ))}
      <path
        d={`M ${left} ${top} V ${height - bottom} H ${width - right}`}
        fill="none"
        stroke="var(--chakra-colors-ink-second)"
      />
      {across.map((value, k) => (
        <text
          key={value}
          x={at.x(value)}
          y={height - 8}
          textAnchor={at.x(value) > width - ROOM ? "end" : "middle"}
          className="axis"
        >
          {k === across.length - 1 && unitX ? `${formatX(value)} ${unitX}` : formatX(value)}
        </text>
      ))}
    </>
  );
}
