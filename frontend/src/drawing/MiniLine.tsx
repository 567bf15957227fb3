import type { LineDrawing } from "../api/client";
import { SLATE } from "./colours";
import { framesFor } from "./paths";
import { BoxShape, LoopShape, RoadShape, SourceShape } from "./Shapes";
import { WheelShape } from "./WheelShape";

const ROOM = { width: 320, height: 110, left: 6, right: 6, top: 6, bottom: 8 };

/** The line in miniature, always in one row. */
export function MiniLine({ line, name }: { line: LineDrawing; name: string }) {
  const [row] = line.rows;
  const [frame] = framesFor(line.rows, [], ROOM);
  if (!row || !frame) return null;
  const road = row.road_wheel;
  const ground = road && frame.y(road.y - road.radius);
  return (
    <svg
      viewBox={`0 0 ${ROOM.width} ${ROOM.height}`}
      width="100%"
      role="img"
      aria-label={`The line of ${name}`}
    >
      {ground && <path d={`M 4 ${ground} H ${ROOM.width - 4}`} stroke={SLATE} strokeWidth={1.2} />}
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
    </svg>
  );
}
