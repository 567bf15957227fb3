/** One cursor through all charts: over time in some, over speed in others; the run tells which belongs to which. */
import {
  createContext,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
  useContext,
  useMemo,
  useState,
} from "react";
import { type Series, valueAt } from "./curves";

export interface At {
  time: number | null;
  speed: number | null;
}

interface Shared {
  at: At;
  move: (axis: keyof At, value: number | null) => void;
  pick: () => void;
}

const CursorContext = createContext<Shared | null>(null);

interface ProviderProps {
  /** Times and speeds of the run, in the order they are gone through. */
  run: { time: number[]; speed: number[] } | null;
  onPick: (speed: number) => void;
  children: ReactNode;
}

/** Only what shows the cursor is painted anew when it moves. */
export function CursorProvider({ run, onPick, children }: ProviderProps) {
  const [at, setAt] = useState<At>({ time: null, speed: null });
  const shared = useMemo(
    (): Shared => ({
      at,
      move: (axis, value) => setAt(value === null ? { time: null, speed: null } : both(run, axis, value)),
      pick: () => at.speed !== null && onPick(at.speed),
    }),
    [at, run, onPick],
  );
  return <CursorContext value={shared}>{children}</CursorContext>;
}

/** The other half: the speed at a time of the run, or the time at which it first has a speed. */
export function both(run: ProviderProps["run"], axis: keyof At, value: number): At {
  if (!run) return { time: null, speed: null, [axis]: value };
  const pairs = run.time.map((t, i): [number, number] => [t, run.speed[i] ?? 0]);
  if (axis === "time") return { time: value, speed: valueAt(pairs, value) };
  return {
    speed: value,
    time: valueAt(
      pairs.map(([t, v]): [number, number] => [v, t]),
      value,
    ),
  };
}

interface Props {
  axis: keyof At;
  label: string;
  /** From SI to what the axis shows. */
  scale: number;
  max: number;
  unit: string;
  series: Series[];
  format: (value: number) => string;
}

const STEPS = 60;
/** Share of the chart from which on the readings stand to the left of the line. */
const LEFT = 0.42;

/** Lies over a chart's plot: the line of the cursor, and what every curve reads there. */
export function Cursor({ axis, label, scale, max, unit, series, format }: Props) {
  const shared = useContext(CursorContext);
  if (!shared) return null;
  const { at, move, pick } = shared;
  const si = at[axis];
  const x = si === null ? null : si / scale;
  const point = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    move(axis, ((event.clientX - box.left) / box.width) * max * scale);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 }[event.key];
    if (event.key === "Enter") pick();
    if (event.key === "Escape") move(axis, null);
    if (by === undefined) return;
    event.preventDefault();
    move(axis, Math.min(max, Math.max(0, (x ?? 0) + (by * max) / STEPS)) * scale);
  };
  const shown = x !== null && x <= max * 1.001;
  const read = shown
    ? series.flatMap((s) => {
        const value = valueAt(s.points, x);
        return value === null ? [] : [{ name: s.name, colour: s.colour, text: format(value) }];
      })
    : [];
  const here = x === null ? "nothing chosen" : `${format(x)} ${unit}`;
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={`Cursor, ${label}`}
      aria-valuemin={0}
      aria-valuemax={max}
      aria-valuenow={x ?? 0}
      aria-valuetext={[here, ...read.map((r) => `${r.name} ${r.text}`)].join(", ")}
      className="cursor"
      onPointerMove={point}
      onPointerLeave={() => move(axis, null)}
      onClick={pick}
      onKeyDown={onKeyDown}
      data-cursor={axis}
    >
      {shown && (
        <>
          <div className="hairline" style={{ left: `${(100 * x) / max}%` }} />
          <div
            className="reading"
            style={x > LEFT * max ? { right: `${100 - (100 * x) / max}%` } : { left: `${(100 * x) / max}%` }}
          >
            <b>{here}</b>
            {read.map((r) => (
              <span key={r.name}>
                <i style={{ background: r.colour }} />
                {r.name} {r.text}
              </span>
            ))}
          </div>
        </>
      )}
    </div>
  );
}
