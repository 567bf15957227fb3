import type { LineDrawing } from "../api/client";
import { BoxShape, COPPER, LoopShape, SLATE, WheelShape } from "./Circles";
import { frameFor } from "./paths";

const ROOM = { width: 320, height: 110, left: 6, right: 6, top: 6, bottom: 8 };

/** The line in miniature. */
export function MiniLine({ line, name }: { line: LineDrawing; name: string }) {
  const frame = frameFor([line], ROOM);
  const { motor, road_wheel: road } = line;
  const ground = frame.y(line.ground);
  return (
    <svg
      viewBox={`0 0 ${ROOM.width} ${ROOM.height}`}
      width="100%"
      role="img"
      aria-label={`The line of ${name}`}
    >
      <path d={`M 4 ${ground} H ${ROOM.width - 4}`} stroke={SLATE} strokeWidth={1.2} />
      <circle
        cx={frame.x(road.x)}
        cy={frame.y(road.y)}
        r={road.radius * frame.scale}
        fill="none"
        stroke={SLATE}
        strokeWidth={2}
      />
      <circle
        cx={frame.x(motor.x)}
        cy={frame.y(motor.y)}
        r={motor.radius * frame.scale}
        fill="var(--chakra-colors-copper-wash)"
        stroke={COPPER}
      />
      {line.boxes.map((box) => (
        <BoxShape key={box.path} box={box} frame={frame} selected={false} />
      ))}
      {line.wheels.map((wheel) => (
        <WheelShape key={`${wheel.path} ${wheel.member}`} wheel={wheel} frame={frame} selected={false} />
      ))}
      {line.loops.map((loop) => (
        <LoopShape key={loop.path} loop={loop} frame={frame} />
      ))}
    </svg>
  );
}
