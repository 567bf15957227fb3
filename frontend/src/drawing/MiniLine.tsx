import type { LineDrawing, Row } from "../api/client";
import { SLATE } from "./colours";
import { type Frame, framesFor } from "./paths";
import { BoxShape, LoopShape, RoadShape, SourceShape } from "./Shapes";
import { WheelShape } from "./WheelShape";

const ROOM = { width: 320, height: 110, left: 6, right: 6, top: 6, bottom: 8 };

/** The line in miniature, always in one row. */
export function MiniLine({ line, name }: { line: LineDrawing; name: string }) {
  const [row] = line.rows;
  const [frame] = framesFor(line.rows, [], ROOM);
  if (!row || !frame) return null;
  return (
    <svg
      viewBox={`0 0 ${ROOM.width} ${ROOM.height}`}
      width="100%"
      role="img"
      aria-label={`The line of ${name}`}
    >
      <LineShapes row={row} frame={frame} width={ROOM.width} />
    </svg>
  );
}

/** What is painted of a row where nothing is chosen on it. */
export function LineShapes({ row, frame, width }: { row: Row; frame: Frame; width: number }) {
  const road = row.road_wheel;
  const ground = road && frame.y(road.y - road.radius);
  return (
    <>
      {ground && <path d={`M 4 ${ground} H ${width - 4}`} stroke={SLATE} strokeWidth={1.2} />}
      {road && <RoadShape road={road} frame={frame} weight={2} />}
      {row.sources.map((source) => (
        <SourceShape key={source.path} source={source} frame={frame} selected={false} />
      ))}
      {row.boxes.map((box) => (
        <BoxShape key={box.path} box={box} frame={frame} selected={false} />
      ))}
      {row.wheels.map((wheel) => (
        <WheelShape key={`${wheel.path} ${wheel.member}`} wheel={wheel} frame={frame} selected={false} />
      ))}
      {row.loops.map((loop) => (
        <LoopShape key={loop.path} loop={loop} frame={frame} />
      ))}
    </>
  );
}
