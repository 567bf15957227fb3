import { Box } from "@chakra-ui/react";
import { memo } from "react";
import type { LineDrawing, LoadedPart, Row } from "../../api/client";
import { PANEL, SECOND } from "../../drawing/colours";
import { LineShapes } from "../../drawing/MiniLine";
import { type Frame, framesFor, loopPath, spread } from "../../drawing/paths";
import { SvgText } from "../../drawing/SvgText";
import { useWidth } from "../../drawing/useWidth";
import { ofMember, percent, type Used } from "../../words/loads";
import { COLOURS } from "./Bars";

const HEIGHT = 132;
const SIDES = { left: 10, right: 10, top: 26, bottom: 8 };

interface Props {
  line: LineDrawing;
  parts: LoadedPart[];
  onChoose: (path: string) => void;
}

/** The line in small, each member shaded by its use; the bars below say the same for who cannot see it. */
export const ShadedLine = memo(function ShadedLine({ line, parts, onChoose }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(600);
  const frames = framesFor(line.rows, [], { width, height: HEIGHT, ...SIDES });
  return (
    <Box ref={ref} data-shaded>
      <svg width={width} height={HEIGHT * line.rows.length} aria-hidden="true" style={{ display: "block" }}>
        {line.rows.map((row, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a row is its place in the line
          <g key={i}>
            <LineShapes row={row} frame={frames[i] as Frame} width={width} />
            <Shades row={row} frame={frames[i] as Frame} parts={parts} onChoose={onChoose} />
          </g>
        ))}
      </svg>
    </Box>
  );
});

function Shades({ row, frame, parts, onChoose }: { row: Row; frame: Frame } & Omit<Props, "line">) {
  const wheels = [...row.wheels].sort((a, b) => b.outer_radius - a.outer_radius);
  // The bars below are what the keyboard finds.
  const chosenBy = (path: string) => ({ style: { cursor: "pointer" }, onClick: () => onChoose(path) });
  const round = [
    ...row.sources.map((s) => ({ ...s, member: "", r: s.radius })),
    ...wheels.map((w) => ({ ...w, r: w.outer_radius })),
    ...row.boxes.map((b) => ({ ...b, member: "", r: b.height / 2 })),
  ];
  return (
    <>
      {row.loops.map((loop) => {
        const used = ofMember(parts, loop.path, "");
        return (
          used && (
            <path
              key={loop.path}
              d={loopPath(loop, frame)}
              fill="none"
              stroke={colourOf(used)}
              strokeWidth={5}
              opacity={0.75}
              {...chosenBy(loop.path)}
            />
          )
        );
      })}
      {round.map(({ path, member, x, y, r }) => {
        const used = ofMember(parts, path, member);
        return (
          used && (
            <circle
              key={`${path} ${member}`}
              cx={frame.x(x)}
              cy={frame.y(y)}
              r={r * frame.scale}
              fill={colourOf(used)}
              opacity={used.state === "unknown" ? 0.12 : 0.42}
              {...chosenBy(path)}
              data-shade={used.state}
            />
          )
        );
      })}
      <Labels round={round} frame={frame} parts={parts} />
    </>
  );
}

interface Round {
  path: string;
  member: string;
  x: number;
  y: number;
  r: number;
}

/** One figure a stage over its largest wheel, kept apart from the next one. */
function Labels({ round, frame, parts }: { round: Round[]; frame: Frame; parts: LoadedPart[] }) {
  const labels = [...new Set(round.map(({ path }) => path))]
    .map((path) => {
      const own = round.filter((one) => one.path === path);
      const at = own.reduce((one, other) => (other.r > one.r ? other : one));
      const uses = own.map(({ member }) => ofMember(parts, path, member)?.use ?? -1);
      return { path, x: frame.x(at.x), y: frame.y(at.y) - at.r * frame.scale, use: Math.max(...uses) };
    })
    .filter(({ use }) => use >= 0)
    .sort((a, b) => a.x - b.x);
  const places = spread(
    labels.map(({ x }) => x),
    LABEL,
    LABEL / 2,
    Number.POSITIVE_INFINITY,
  );
  const top = Math.min(...round.map(({ y, r }) => frame.y(y) - r * frame.scale)) - 8;
  return labels.map(({ path, x, y, use }, i) => (
    <g key={path}>
      <path d={`M ${places[i]} ${top + 3} L ${x} ${y}`} stroke={SECOND} strokeWidth={0.8} />
      <SvgText x={places[i] ?? x} y={top} mono size={12.5} rim={PANEL} bold={use > 1}>
        {percent(use)}
      </SvgText>
    </g>
  ));
}

/** Pixels between the middles of two figures. */
const LABEL = 48;

const colourOf = (used: Used) => `var(--chakra-colors-${COLOURS[used.state]})`;
