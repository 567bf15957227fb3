import type { PlanDrawing } from "../../api/client";
import { INK, PANEL, SECOND, SPRUCE } from "../../drawing/colours";
import { PlateHoles } from "../../drawing/PlateHoles";
import { frameFor } from "../../drawing/paths";
import { SvgText } from "../../drawing/SvgText";
import { useWidth } from "../../drawing/useWidth";
import { WheelShape } from "../../drawing/WheelShape";
import type { Choice } from "./Answers";
import { pressed } from "./pressed";

const HEIGHT = 250;
const MARGIN = 8;
/** Pixels that a thumb needs, and a mark at least. */
const GRIP = 16;
const MARK = 11;

interface Props {
  plate: PlanDrawing;
  choices: Choice[];
  /** The key of one that is chosen. */
  chosen: string;
  /** Nothing where it can only be looked at. */
  onChoose: ((key: string) => void) | null;
}

/** The plate of an exercise, to scale, with the holes that can be chosen, numbered as the answers are. */
export function PlateOfExercise({ plate, choices, chosen, onChoose }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(640);
  const room = { width, height: HEIGHT, left: MARGIN, right: MARGIN, top: MARGIN, bottom: MARGIN };
  const frame = frameFor([plate], room);
  return (
    <div ref={ref}>
      <svg
        width={width}
        height={HEIGHT}
        role="group"
        aria-label="The plate from above, drawn to scale"
        data-exercise-plate
      >
        {plate.plate && <PlateHoles plate={plate.plate} frame={frame} />}
        {plate.wheels.map((wheel) => (
          <g key={`${wheel.path} ${wheel.member}`} pointerEvents="none">
            <WheelShape wheel={wheel} frame={frame} selected={false} />
            <SvgText
              x={frame.x(wheel.x)}
              y={frame.y(wheel.y) - 0.45 * wheel.pitch_radius * frame.scale}
              mono
              bold
              size={15}
              fill={INK}
              rim={PANEL}
            >
              {wheel.teeth}
            </SvgText>
          </g>
        ))}
        {plate.shafts.map((shaft) => (
          <circle key={shaft.path} cx={frame.x(shaft.x)} cy={frame.y(shaft.y)} r={3.4} fill={INK} />
        ))}
        {choices.map(
          (choice, i) =>
            choice.hole && (
              <HoleMark
                key={choice.key}
                x={frame.x(choice.hole.x)}
                y={frame.y(choice.hole.y)}
                number={i + 1}
                words={choice.words}
                chosen={choice.key === chosen}
                onChoose={onChoose && (() => onChoose(choice.key))}
              />
            ),
        )}
      </svg>
    </div>
  );
}

interface MarkProps {
  x: number;
  y: number;
  number: number;
  words: string;
  chosen: boolean;
  onChoose: (() => void) | null;
}

function HoleMark({ x, y, number, words, chosen, onChoose }: MarkProps) {
  const mark = (
    <>
      <circle
        cx={x}
        cy={y}
        r={MARK}
        fill={chosen ? SPRUCE : PANEL}
        stroke={chosen ? SPRUCE : SECOND}
        strokeWidth={1.5}
      />
      <SvgText x={x} y={y + 5} mono bold size={13} fill={chosen ? PANEL : INK}>
        {String(number)}
      </SvgText>
    </>
  );
  if (!onChoose) return <g data-hole={number}>{mark}</g>;
  return (
    <g
      role="button"
      tabIndex={0}
      {...pressed(onChoose)}
      aria-pressed={chosen}
      aria-label={`hole ${number}: ${words}`}
      data-hole={number}
    >
      <circle cx={x} cy={y} r={GRIP} fill="transparent" />
      {mark}
    </g>
  );
}
