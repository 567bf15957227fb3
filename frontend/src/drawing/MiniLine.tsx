import type { LineDrawing, Row } from "../api/client";
import { SLATE } from "./colours";
import { type Frame, framesFor } from "./paths";
import { BoxShape, LoopShape, RoadShape, SourceShape } from "./Shapes";
import { WheelShape } from "./WheelShape";

const ROOM = { width: 320, height: 110, left: 6, right: 6, top: 6, bottom: 8 };

interface Props {
  line: LineDrawing;
  name: string;
  /** Which wheels, boxes and sources stand out, by path and what they are there. */
  marked?: Marked;
}

type Marked = (path: string, member: string) => boolean;
const NOTHING: Marked = () => false;

/** The line in miniature, always in one row. */
export function MiniLine({ line, name, marked }: Props) {
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
      <LineShapes row={row} frame={frame} width={ROOM.width} marked={marked} />
    </svg>
  );
}

interface ShapesProps {
  row: Row;
  frame: Frame;
  width: number;
  marked?: Marked;
}

/** What is painted of a row where nothing is to be chosen on it. */
export function LineShapes({ row, frame, width, marked = NOTHING }: ShapesProps) {
  const road = row.road_wheel;
  const ground = road && frame.y(road.y - road.radius);
  return (
    <>
      {ground && <path d={`M 4 ${ground} H ${width - 4}`} stroke={SLATE} strokeWidth={1.2} />}
      {road && <RoadShape road={road} frame={frame} weight={2} />}
      {row.sources.map((source) => (
        <SourceShape key={source.path} source={source} frame={frame} selected={marked(source.path, "")} />
      ))}
      {row.boxes.map((box) => (
        <BoxShape key={box.path} box={box} frame={frame} selected={marked(box.path, "")} />
      ))}
      {row.wheels.map((wheel) => (
        <WheelShape
          key={`${wheel.path} ${wheel.member}`}
          wheel={wheel}
          frame={frame}
          selected={marked(wheel.path, wheel.member)}
        />
      ))}
      {row.loops.map((loop) => (
        <LoopShape key={loop.path} loop={loop} frame={frame} />
      ))}
    </>
  );
}
