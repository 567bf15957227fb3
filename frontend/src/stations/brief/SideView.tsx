import type { Live } from "../../api/client";
import { siAt, useDocument, useEdit, useFigures } from "../../document/context";
import { INK, SECOND } from "../../drawing/colours";
import { SvgText } from "../../drawing/SvgText";
import { useWidth } from "../../drawing/useWidth";
import { show, type Units, useUnits } from "../../ui/fields/units";
import { AxleWheel, CentreOfMass, Ground, Handle, Height, Length, slopeRise } from "./SideViewParts";

const MOST_HEIGHT = 170;
const MARGIN = { side: 84, top: 30, bottom: 52 };

/** The vehicle from the side, to scale: wheels, wheelbase, centre of mass, slope; what can be moved has a handle. */
export function SideView() {
  const { live } = useFigures();
  const document = useDocument();
  const { set, readOnly } = useEdit();
  const units = useUnits();
  const [ref, width] = useWidth<HTMLDivElement>(480);
  const sizes = known(live);
  const long = sizes.wheelbase + sizes.diameter;
  const high = Math.max(sizes.diameter, sizes.height * 1.35) + 0.001;
  const scale = Math.min((width - 2 * MARGIN.side) / long, MOST_HEIGHT / high);
  const tall = MARGIN.top + high * scale + MARGIN.bottom;
  const ground = tall - MARGIN.bottom;
  const rear = (width - sizes.wheelbase * scale) / 2;
  const front = rear + sizes.wheelbase * scale;
  const radius = (sizes.diameter / 2) * scale;
  const axle = ground - radius;
  const cg = { x: rear + sizes.ahead * scale, y: ground - sizes.height * scale };
  const text = (si: number) => Object.values(show(units, "length", si)).join(" ");
  const driven = String(document.vehicle.driven);
  const put = (path: string, dimension: string, si: number) => set(path, typedIn(units, dimension, si));
  const toggle = (end: "rear" | "front") => {
    const other = end === "rear" ? "front" : "rear";
    set("vehicle.driven", driven === "all" ? other : driven === end ? driven : "all");
  };
  const ends: ["rear" | "front", number][] = [
    ["rear", rear],
    ["front", front],
  ];
  return (
    <div ref={ref}>
      <svg
        width={width}
        height={tall}
        role="group"
        aria-label={described(sizes, units, driven)}
        data-side-view
      >
        <Ground y={ground} width={width} grade={sizes.grade} />
        <rect
          x={rear - radius * 0.5}
          y={Math.min(axle - radius * 0.5, cg.y - 8)}
          width={front - rear + radius}
          height={Math.max(radius * 0.9, axle - cg.y + 8)}
          rx={3}
          fill="var(--chakra-colors-spruce-wash)"
          stroke={INK}
          strokeWidth={1.2}
        />
        {ends.map(([end, x]) => (
          <AxleWheel
            key={end}
            x={x}
            y={axle}
            radius={radius}
            name={`${end} wheels`}
            driven={driven === "all" || driven === end}
            onToggle={readOnly ? undefined : () => toggle(end)}
          />
        ))}
        <Length
          x1={rear}
          x2={front}
          y={ground + 42}
          text={sizes.based ? text(sizes.wheelbase) : "wheelbase not given"}
        />
        {sizes.centre && <Length x1={rear} x2={cg.x} y={ground + 21} text={text(sizes.ahead)} />}
        {sizes.centre && <Height x={front + radius + 14} y1={ground} y2={cg.y} text={text(sizes.height)} />}
        <Height
          x={rear - radius - 14}
          y1={ground}
          y2={ground - 2 * radius}
          text={text(sizes.diameter)}
          left
        />
        <path
          d={`M ${width / 2 - 22} 14 h 44 m -8 -4 l 8 4 l -8 4`}
          fill="none"
          stroke={SECOND}
          strokeWidth={1.2}
        />
        <SvgText x={width / 2 - 28} y={18} size={12.5} fill={SECOND} anchor="end">
          forwards
        </SvgText>
        {sizes.centre && <CentreOfMass x={cg.x} y={cg.y} />}
        {sizes.centre && !readOnly && (
          <Handle
            x={cg.x}
            y={cg.y}
            name={`Centre of mass, ${text(sizes.ahead)} ahead of the rear axle, ${text(sizes.height)} high`}
            onMove={(dx, dy) => {
              const ahead = Math.min(
                Math.max(sizes.ahead + dx / scale, 0.01 * sizes.wheelbase),
                0.99 * sizes.wheelbase,
              );
              if (dx) put("vehicle.cg_ahead_of_rear", "length", ahead);
              if (dy) put("vehicle.cg_height", "length", Math.max(sizes.height - dy / scale, 0.001));
            }}
          />
        )}
        {sizes.based && !readOnly && (
          <Handle
            x={front}
            y={ground + 42}
            name={`Wheelbase, ${text(sizes.wheelbase)}`}
            onMove={(dx) =>
              dx &&
              put("vehicle.wheelbase", "length", Math.max(sizes.wheelbase + dx / scale, sizes.ahead * 1.02))
            }
          />
        )}
        {!readOnly && (
          <Handle
            x={width - 22}
            y={ground - slopeRise(sizes.grade)}
            name={`Slope, ${show(units, "grade", sizes.grade).number} %`}
            onMove={(_, dy) => dy && put("conditions.grade", "grade", clampGrade(sizes.grade - dy / 100))}
          />
        )}
      </svg>
    </div>
  );
}

const clampGrade = (grade: number) => Math.min(Math.max(Math.round(grade * 200) / 200, -1), 1);

/** A value moved by hand, in the units on display, with as many digits as a hand can set. */
function typedIn(units: Units, dimension: string, si: number): string {
  const { factor, typed } = units.entry(dimension)[units.system];
  return `${Number((si / factor).toPrecision(3))} ${typed}`;
}

interface Sizes {
  diameter: number;
  wheelbase: number;
  ahead: number;
  height: number;
  grade: number;
  based: boolean;
  centre: boolean;
}

/** What is known, with a likely shape where something is not. */
function known(live: Live): Sizes {
  const diameter = siAt(live, "vehicle.wheel_diameter") ?? 0.1;
  const base = siAt(live, "vehicle.wheelbase");
  const wheelbase = base ?? 3 * diameter;
  const ahead = siAt(live, "vehicle.cg_ahead_of_rear");
  const height = siAt(live, "vehicle.cg_height");
  return {
    diameter,
    wheelbase,
    ahead: ahead ?? wheelbase / 2,
    height: height ?? diameter * 0.7,
    grade: siAt(live, "conditions.grade") ?? 0,
    based: base !== undefined,
    centre: ahead !== undefined && height !== undefined,
  };
}

function described(sizes: Sizes, units: Units, driven: string): string {
  const text = (si: number) => Object.values(show(units, "length", si)).join(" ");
  const centre = sizes.centre
    ? `, centre of mass ${text(sizes.ahead)} ahead of the rear axle and ${text(sizes.height)} high`
    : "";
  return `Side view: wheels of ${text(sizes.diameter)}${sizes.based ? `, wheelbase ${text(sizes.wheelbase)}` : ""}${centre}, driven: ${driven}`;
}
