import { type KeyboardEvent, useEffect, useState } from "react";
import type { Flow, LineDrawing, Row, Source, View, Wheel } from "../api/client";
import { isSelected, type Selected } from "../document/selected";
import { digits } from "../ui/fields/units";
import { COPPER, INK, PANEL, SECOND, SLATE } from "./colours";
import { figuresHeight, LABELS, levelsFor, ownShafts, ShaftFigures, WheelLabels } from "./Figures";
import { ROAD_WHEEL, type Stop, stops } from "./order";
import { type Frame, framesFor, turningArrow } from "./paths";
import { RimHandle } from "./RimHandle";
import { BoxShape, Ground, LoopShape, MarkShapes, RoadShape, SourceShape } from "./Shapes";
import { SvgText } from "./SvgText";
import { useWidth } from "./useWidth";
import { WheelShape } from "./WheelShape";

/** Pixels kept for the circles of a row: of the only one, and of one of several. */
const ALONE = 150;
const STACKED = 120;
/** A row may be this much longer than would fill the room. */
const FOLD = 1.25;
/** Pixels below which labels fill the top of a drawing. */
const NARROW = 600;
const SIDES = { left: 14, right: 14 };

interface Props {
  line: LineDrawing;
  mark: View | null;
  flow: Flow | undefined;
  selected: Selected | null;
  readOnly: boolean;
  onSelect: (selected: Selected) => void;
  /** Change a wheel by this many sizes; of any size, or of those at hand; by a key that is held down. */
  onStep: (wheel: Wheel, by: number, any: boolean, held: boolean) => void;
  /** Take another of the sizes that are swept, so many to the right. */
  onSweep: (by: number) => void;
  /** While its rim is dragged. */
  onTeeth: (wheel: Wheel, teeth: number, gesture: string) => void;
  onKey: (event: KeyboardEvent) => void;
  /** A rim is being dragged or a key held down, or no longer. */
  onHold: (held: boolean) => void;
  /** How many times as long as high a row may be before it is better folded. */
  onRoom: (longest: number) => void;
}

/** The power path to scale, from the sources to the wheel on the ground; wheels are chosen and changed on it. */
export function LineFigure(props: Props) {
  const { line, mark, flow, selected, readOnly, onSelect, onStep, onSweep, onTeeth, onKey, onHold, onRoom } =
    props;
  const [ref, width] = useWidth<HTMLDivElement>(760);
  const longest = Math.round((2 * FOLD * (width - SIDES.left - SIDES.right)) / ALONE) / 2;
  useEffect(() => onRoom(longest), [longest, onRoom]);
  const branches = Math.max(1, ...line.rows.map((row) => row.sources.length));
  const levels = levelsFor(Math.max(...line.rows.map((row) => ownShafts(row).length)), width);
  const strips = Math.max(...line.rows.map((row) => figuresHeight(row, branches, levels)));
  const circles = line.rows.length > 1 ? STACKED : ALONE;
  // How many such lines there are is said where there is room: beside the labels, or under the figures.
  const said = width < NARROW && line.units > 1 ? 16 : 0;
  const under = strips + 12 + said;
  const height = LABELS + 14 + circles + under;
  const room = { width, height, ...SIDES, top: LABELS + 14, bottom: under };
  const [held, setHeld] = useState<Frame[] | null>(null);
  const fitted = framesFor(line.rows, mark?.line.rows ?? [], room);
  const frames = held?.length === line.rows.length ? held : fitted;
  const chosen = (path: string, member: string) => isSelected(selected, path, member);
  return (
    <div ref={ref}>
      <svg
        width={width}
        height={height * line.rows.length}
        role="group"
        aria-label="Power path from the motor to the ground"
        onKeyDown={onKey}
        data-drawing
      >
        {line.rows.map((row, i) => {
          const frame = frames[i] as Frame;
          const marked = mark?.line.rows[i];
          const road = row.road_wheel;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a row is its place in the line
            <g key={i}>
              {road && <Ground y={frame.y(road.y - road.radius)} width={width} />}
              <Bodies row={row} frame={frame} chosen={chosen} gear={flow?.gear ?? 0} onSelect={onSelect} />
              <g pointerEvents="none">
                {row.loops.map((loop) => (
                  <LoopShape key={loop.path} loop={loop} frame={frame} />
                ))}
                {marked && <MarkShapes row={marked} frame={frame} />}
                <Centres row={row} frame={frame} />
                <Rotation row={row} frame={frame} />
                {i > 0 && <Carried row={row} frame={frame} />}
              </g>
              <WheelLabels row={row} frame={frame} width={width} top={i * height} selected={selected} />
              {i === 0 && line.units > 1 && (
                <SvgText x={SIDES.left} y={said > 0 ? height - 4 : 20} anchor="start" fill={SECOND}>
                  {`${line.units} × this line`}
                </SvgText>
              )}
              {flow && (
                <ShaftFigures
                  {...{ row, branches, flow, frame, width, levels }}
                  top={(i + 1) * height - strips - said}
                />
              )}
            </g>
          );
        })}
        {stops(line).map((stop) => (
          <Control
            key={`${stop.at.path} ${stop.at.member}`}
            stop={stop}
            frame={frames[stop.row] as Frame}
            chosen={chosen(stop.at.path, stop.at.member)}
            onSelect={() => onSelect(stop.at)}
            onStep={onStep}
            onSweep={onSweep}
            onHold={onHold}
          />
        ))}
        {!readOnly && (
          <RimHandle
            {...{ line, frames, selected, onTeeth }}
            onHold={(hold) => {
              setHeld(hold ? frames : null);
              onHold(hold);
            }}
          />
        )}
      </svg>
    </div>
  );
}

interface BodiesProps {
  row: Row;
  frame: Frame;
  chosen: (path: string, member: string) => boolean;
  gear: number;
  onSelect: (selected: Selected) => void;
}

/** What is painted and can be clicked, the large behind the small; the keyboard has controls of its own. */
function Bodies({ row, frame, chosen, gear, onSelect }: BodiesProps) {
  const pick = (path: string, member: string) => ({
    style: { cursor: "pointer" },
    onClick: () => {
      onSelect({ path, member });
      document.querySelector<SVGElement>(`[data-stop="${path} ${member}"]`)?.focus();
    },
  });
  const ordered = [...row.wheels].sort((a, b) => b.outer_radius - a.outer_radius);
  return (
    <g aria-hidden="true">
      {row.road_wheel && (
        <g {...pick(ROAD_WHEEL.path, ROAD_WHEEL.member)}>
          <RoadShape
            road={row.road_wheel}
            frame={frame}
            weight={chosen(ROAD_WHEEL.path, ROAD_WHEEL.member) ? 3 : 1.5}
          />
        </g>
      )}
      {row.sources.map((source) => (
        <g key={source.path} {...pick(source.path, "motor")}>
          <SourceShape source={source} frame={frame} selected={chosen(source.path, "motor")} />
        </g>
      ))}
      {row.boxes.map((box) => (
        <g key={box.path} {...pick(box.path, "box")}>
          <BoxShape box={box} frame={frame} selected={chosen(box.path, "box")} engaged={gear} />
        </g>
      ))}
      {ordered.map((wheel) => (
        <g
          key={`${wheel.path} ${wheel.member}`}
          {...pick(wheel.path, wheel.member)}
          data-body={`${wheel.path} ${wheel.member}`}
        >
          <WheelShape wheel={wheel} frame={frame} selected={chosen(wheel.path, wheel.member)} />
        </g>
      ))}
    </g>
  );
}

interface ControlProps {
  stop: Stop;
  frame: Frame;
  chosen: boolean;
  onSelect: () => void;
  onStep: Props["onStep"];
  onSweep: Props["onSweep"];
  onHold: Props["onHold"];
}

/** What the keyboard and a screen reader find, in the order of power: no paint but the focus. */
function Control({ stop, frame, chosen, onSelect, onStep, onSweep, onHold }: ControlProps) {
  const name = `${stop.at.path} ${stop.at.member}`;
  const common = {
    tabIndex: 0,
    onFocus: onSelect,
    onKeyUp: () => onHold(false),
    onBlur: () => onHold(false),
    fill: "none",
    pointerEvents: "none" as const,
    style: { outlineOffset: 3 },
    "data-stop": name,
  };
  if (stop.kind === "wheel") {
    const { wheel } = stop;
    const onKeyDown = (event: KeyboardEvent) => {
      const by = { ArrowUp: 1, ArrowDown: -1, PageUp: 5, PageDown: -5 }[event.key];
      if (by === undefined) return;
      event.preventDefault();
      onStep(wheel, by, event.altKey, event.repeat);
    };
    return (
      <circle
        {...common}
        role="spinbutton"
        aria-label={`${wheel.member} ${wheel.noun}`}
        aria-valuenow={wheel.teeth ?? undefined}
        aria-valuetext={wheel.teeth === null ? "without teeth" : `${wheel.teeth} teeth`}
        cx={frame.x(wheel.x)}
        cy={frame.y(wheel.y)}
        r={wheel.outer_radius * frame.scale}
        onKeyDown={onKeyDown}
        data-wheel={name}
      />
    );
  }
  const { at, radius, label } = shown(stop);
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (by === undefined || stop.kind === "box") return;
    event.preventDefault();
    onSweep(by);
  };
  return (
    <circle
      {...common}
      role="button"
      aria-label={label}
      aria-pressed={chosen}
      cx={frame.x(at.x)}
      cy={frame.y(at.y)}
      r={radius * frame.scale}
      onKeyDown={onKeyDown}
    />
  );
}

/** Where it is, how large, and what it is called. */
function shown(stop: Exclude<Stop, { kind: "wheel" }>) {
  if (stop.kind === "source")
    return { at: stop.source, radius: stop.source.radius, label: sourceLabel(stop.source) };
  if (stop.kind === "road") return { at: stop.road, radius: stop.road.radius, label: "Wheel on the ground" };
  const { box } = stop;
  return { at: box, radius: box.height / 2, label: `${box.title}, ${digits(box.ratio)} to 1` };
}

function sourceLabel(source: Source): string {
  const what = source.kind === "engine" ? "Engine and clutch" : "Motor and supply";
  return source.branch > 0 ? `${what}, branch ${source.branch + 1}` : what;
}

/** A filled centre drives, an open one is driven; a shaft between two stages is both. */
function Centres({ row, frame }: { row: Row; frame: Frame }) {
  return row.shafts.map((shaft) => {
    const cx = frame.x(shaft.x);
    const cy = frame.y(shaft.y);
    return (
      <g key={shaft.index}>
        {shaft.role !== "source" && (
          <circle cx={cx} cy={cy} r={6} fill={PANEL} stroke={INK} strokeWidth={1.5} />
        )}
        {shaft.role !== "wheel" && <circle cx={cx} cy={cy} r={3.4} fill={INK} />}
      </g>
    );
  });
}

/** An arrow over the largest circle of each shaft, and over each idler. */
function Rotation({ row, frame }: { row: Row; frame: Frame }) {
  const shafts = row.shafts.map((shaft) => {
    const own = row.wheels.filter((w) => w.shaft === shaft.index && !w.member.startsWith("idler"));
    const source = row.sources.find((s) => s.x === shaft.x && s.y === shaft.y);
    const road = shaft.role === "wheel" ? (row.road_wheel?.radius ?? 0) : 0;
    const radius = Math.max(source?.radius ?? 0, road, ...own.map((w) => w.outer_radius));
    return {
      ...shaft,
      key: `shaft ${shaft.index}`,
      radius,
      stroke: shaft.role === "source" ? COPPER : SLATE,
    };
  });
  const idlers = row.wheels
    .filter((w) => w.member.startsWith("idler"))
    .map((w) => ({
      ...w,
      key: `${w.path} ${w.member}`,
      radius: w.outer_radius,
      rotation_known: true,
      stroke: SLATE,
    }));
  return [...shafts, ...idlers].map(({ key, x, y, radius, rotation, rotation_known, stroke }) => {
    const arrow = turningArrow(frame.x(x), frame.y(y), radius * frame.scale + 7, rotation, rotation_known);
    return (
      <g key={key} data-rotation={rotation}>
        <path d={arrow.arc} fill="none" stroke={stroke} strokeWidth={1.5} />
        <path d={arrow.heads} fill={stroke} />
      </g>
    );
  });
}

/** A row that goes on begins with the shaft the one above ended with. */
function Carried({ row, frame }: { row: Row; frame: Frame }) {
  const [first] = row.shafts;
  if (!first) return null;
  const x = frame.x(first.x);
  const y = frame.y(first.y);
  return <path d={`M ${SIDES.left} ${y} H ${x - 8}`} stroke={SECOND} strokeWidth={1} strokeDasharray="3 3" />;
}
