import type { Ask, Wheel } from "../../api/client";
import { COPPER, PANEL, SECOND, SPRUCE } from "../../drawing/colours";
import { type Frame, turningArrow } from "../../drawing/paths";
import { pressed } from "./pressed";

/** Pixels from a wheel to an arrow around it, and the least radius of one that a thumb can hit. */
const BESIDE = 11;
const LEAST = 24;
/** Radians from straight up to the middle of an arrow that can be chosen. */
const LEAN = 0.85;
const GRIP = 30;
const SENSES: Record<string, number> = { clockwise: 1, anticlockwise: -1 };

interface Props {
  ask: Ask;
  wheels: Wheel[];
  frame: Frame;
  chosen: string[];
  /** Nothing where it can only be looked at. */
  onChoose: ((key: string) => void) | null;
}

/** Which way the first wheel turns, where that is told, and the two arrows to choose from around the one asked about. */
export function TurningArrows({ ask, wheels, frame, chosen, onChoose }: Props) {
  const match = wheels.find((wheel) => `${wheel.path} ${wheel.member}` === ask.around);
  if (!match) return null;
  const told = wheels.find((wheel) => wheel.rotation !== 0);
  return (
    <>
      {told && <Arrow wheel={told} frame={frame} sense={told.rotation} lean={0} stroke={COPPER} />}
      {ask.choices.map((choice) => {
        const sense = SENSES[choice.key] ?? 1;
        const on = chosen.includes(choice.key);
        const arrow = (
          <Arrow
            wheel={match}
            frame={frame}
            sense={sense}
            lean={sense * LEAN}
            stroke={on ? SPRUCE : SECOND}
            strong={on}
          />
        );
        if (!onChoose) return <g key={choice.key}>{arrow}</g>;
        return (
          <g
            key={choice.key}
            role="button"
            tabIndex={0}
            {...pressed(() => onChoose(choice.key))}
            aria-pressed={on}
            aria-label={`the last wheel turns ${choice.words}`}
            data-arrow={choice.key}
          >
            <Arrow
              wheel={match}
              frame={frame}
              sense={sense}
              lean={sense * LEAN}
              stroke="transparent"
              width={GRIP}
            />
            {arrow}
          </g>
        );
      })}
    </>
  );
}

interface ArrowProps {
  wheel: Wheel;
  frame: Frame;
  sense: number;
  /** Radians from straight up, clockwise. */
  lean: number;
  stroke: string;
  strong?: boolean;
  width?: number;
}

function Arrow({ wheel, frame, sense, lean, stroke, strong = false, width }: ArrowProps) {
  const [x, y] = [frame.x(wheel.x), frame.y(wheel.y)];
  const radius = Math.max(LEAST, wheel.outer_radius * frame.scale + BESIDE);
  const arrow = turningArrow(x, y, radius, sense);
  return (
    <g transform={`rotate(${(lean * 180) / Math.PI} ${x} ${y})`}>
      {!width && <path d={arrow.arc} fill="none" stroke={PANEL} strokeWidth={8} />}
      <path d={arrow.arc} fill="none" stroke={stroke} strokeWidth={width ?? (strong ? 4.5 : 2.5)} />
      <path d={arrow.heads} fill={stroke} stroke={stroke} strokeWidth={strong ? 5 : 3} />
    </g>
  );
}
