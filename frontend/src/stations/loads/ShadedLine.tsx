import { Box } from "@chakra-ui/react";
import { memo } from "react";
import type { LineDrawing, LoadedPart, Row } from "../../api/client";
import { PANEL } from "../../drawing/colours";
import { LineShapes } from "../../drawing/MiniLine";
import { type Frame, framesFor, loopPath } from "../../drawing/paths";
import { SvgText } from "../../drawing/SvgText";
import { useWidth } from "../../drawing/useWidth";
import { ofMember, percent, type Used } from "../../words/loads";
import { COLOURS } from "./Bars";

const HEIGHT = 118;
const SIDES = { left: 10, right: 10, top: 20, bottom: 10 };

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
      {round.map(({ path, member, x, y, r }) => {
        const used = ofMember(parts, path, member);
        if (used?.use === null || used?.use === undefined) return null;
        return (
          <SvgText
            key={`${path} ${member}`}
            x={frame.x(x)}
            y={Math.max(12, frame.y(y) - r * frame.scale - 4)}
            mono
            size={12}
            rim={PANEL}
            bold={used.state === "over"}
          >
            {percent(used.use)}
          </SvgText>
        );
      })}
    </>
  );
}

const colourOf = (used: Used) => `var(--chakra-colors-${COLOURS[used.state]})`;
