import type { Exercise, Row, Wheel } from "../../api/client";
import { INK, SECOND, SPRUCE } from "../../drawing/colours";
import { LineShapes } from "../../drawing/MiniLine";
import { type Frame, framesFor, spread } from "../../drawing/paths";
import { SvgText } from "../../drawing/SvgText";
import { useWidth } from "../../drawing/useWidth";
import { pressed } from "./pressed";
import { TurningArrows } from "./TurningArrows";

const HEIGHT = 210;
const ROOM = { left: 12, right: 12, top: 40, bottom: 10 };
/** Room beside a wheel for the arrows around it. */
const ARROW_ROOM = 46;
const LABEL_GAP = 46;

interface Props {
  exercise: Exercise;
  /** Wheels that stand out, by path and member, or the key of what is chosen. */
  chosen: string[];
  /** Nothing where it can only be looked at. */
  onChoose: ((key: string) => void) | null;
}

export const keyOf = (wheel: Wheel) => `${wheel.path} ${wheel.member}`;

/** Wheels of the drawing that an answer is given by. */
function wheelsAsked({ ask, drawing }: Exercise): string[] {
  if (ask.kind === "wheel") return ask.choices.map((choice) => choice.key);
  return ask.kind === "picks" ? drawing.rows.flatMap((row) => row.wheels.map(keyOf)) : [];
}

/** The line of an exercise, to scale, with its tooth counts; wheels and arrows that are asked for are chosen on it. */
export function ExerciseDrawing({ exercise, chosen, onChoose }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(640);
  const { ask, drawing } = exercise;
  const [row] = drawing.rows;
  const room = ask.around ? { ...ROOM, left: ARROW_ROOM, right: ARROW_ROOM } : ROOM;
  const [frame] = framesFor(drawing.rows, [], { width, height: HEIGHT, ...room });
  const choices = onChoose ? wheelsAsked(exercise) : [];
  if (!row || !frame) return null;
  return (
    <div ref={ref}>
      <svg
        width={width}
        height={HEIGHT}
        role="group"
        aria-label="What it is about, drawn to scale"
        data-exercise-drawing
      >
        <LineShapes
          row={row}
          frame={frame}
          width={width}
          marked={(path, member) => chosen.includes(`${path} ${member}`)}
        />
        <Labels row={row} frame={frame} width={width} chosen={chosen} />
        <TurningArrows {...{ ask, frame, chosen, onChoose }} wheels={row.wheels} />
        {row.wheels
          .filter((wheel) => choices.includes(keyOf(wheel)))
          .map((wheel) => (
            <Grip
              key={keyOf(wheel)}
              wheel={wheel}
              frame={frame}
              chosen={chosen.includes(keyOf(wheel))}
              onChoose={() => onChoose?.(keyOf(wheel))}
            />
          ))}
      </svg>
    </div>
  );
}

interface GripProps {
  wheel: Wheel;
  frame: Frame;
  chosen: boolean;
  onChoose: () => void;
}

/** Pixels that a thumb needs. */
const LEAST_GRIP = 16;

function Grip({ wheel, frame, chosen, onChoose }: GripProps) {
  return (
    <circle
      cx={frame.x(wheel.x)}
      cy={frame.y(wheel.y)}
      r={Math.max(LEAST_GRIP, wheel.outer_radius * frame.scale)}
      fill="transparent"
      role="button"
      tabIndex={0}
      {...pressed(onChoose)}
      aria-pressed={chosen}
      aria-label={`wheel with ${wheel.teeth} teeth`}
      data-wheel={keyOf(wheel)}
    />
  );
}

/** Tooth counts over the drawing, each led to its wheel; never who drives whom. */
function Labels({ row, frame, width, chosen }: { row: Row; frame: Frame; width: number; chosen: string[] }) {
  // Where a belt runs on a pulley without teeth is often what is asked.
  const labelled = row.wheels
    .filter((wheel) => wheel.teeth !== null)
    .map((wheel, i) => {
      const lean = i % 2 ? -0.75 : 0.75;
      const r = wheel.pitch_radius * frame.scale;
      return { wheel, x: frame.x(wheel.x) + r * Math.sin(lean), y: frame.y(wheel.y) - r * Math.cos(lean) };
    })
    .sort((a, b) => a.x - b.x);
  const gap = Math.min(LABEL_GAP, (width - 60) / Math.max(1, labelled.length - 1));
  const places = spread(
    labelled.map(({ x }) => x),
    gap,
    30,
    width - 30,
  );
  return (
    <g pointerEvents="none">
      {labelled.map(({ wheel, x, y }, i) => {
        const place = places[i] ?? x;
        const fill = chosen.includes(keyOf(wheel)) ? SPRUCE : INK;
        return (
          <g key={keyOf(wheel)}>
            <path d={`M ${place} 25 L ${x} ${y}`} stroke={SECOND} strokeWidth={0.8} />
            <SvgText x={place} y={19} mono bold size={17} fill={fill}>
              {wheel.teeth}
            </SvgText>
          </g>
        );
      })}
    </g>
  );
}
