import type { Live } from "../../api/client";
import { INK, PANEL, SECOND, SLATE } from "../../drawing/Circles";
import { SvgText } from "../../drawing/SvgText";
import { useWidth } from "../../drawing/useWidth";
import { show, type Units, useUnits } from "../../fields/units";
import { siAt, useFigures } from "../context";

const MOST_HEIGHT = 170;
const MARGIN = { side: 84, top: 30, bottom: 52 };

/** The vehicle from the side, to scale: wheels, wheelbase, centre of mass. */
export function SideView() {
  const { live } = useFigures();
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
  return (
    <div ref={ref}>
      <svg width={width} height={tall} role="img" aria-label={described(sizes, units)}>
        <path d={`M 8 ${ground} H ${width - 8}`} stroke={SLATE} strokeWidth={1.5} />
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
        {[rear, front].map((x) => (
          <g key={x}>
            <circle cx={x} cy={axle} r={radius} fill={PANEL} stroke={SLATE} strokeWidth={2} />
            <circle cx={x} cy={axle} r={3.5} fill={INK} />
          </g>
        ))}
        {sizes.centre && <CentreOfMass x={cg.x} y={cg.y} />}
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
      </svg>
    </div>
  );
}

interface Sizes {
  diameter: number;
  wheelbase: number;
  ahead: number;
  height: number;
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
    based: base !== undefined,
    centre: ahead !== undefined && height !== undefined,
  };
}

function described(sizes: Sizes, units: Units): string {
  const text = (si: number) => Object.values(show(units, "length", si)).join(" ");
  const centre = sizes.centre
    ? `, centre of mass ${text(sizes.ahead)} ahead of the rear axle and ${text(sizes.height)} high`
    : "";
  return `Side view: wheels of ${text(sizes.diameter)}${sizes.based ? `, wheelbase ${text(sizes.wheelbase)}` : ""}${centre}, all wheels driven`;
}

function CentreOfMass({ x, y }: { x: number; y: number }) {
  return (
    <g>
      <circle cx={x} cy={y} r={8} fill={PANEL} stroke={INK} strokeWidth={1.3} />
      <path
        d={`M ${x} ${y} V ${y - 8} A 8 8 0 0 1 ${x + 8} ${y} Z M ${x} ${y} V ${y + 8} A 8 8 0 0 1 ${x - 8} ${y} Z`}
        fill={INK}
      />
    </g>
  );
}

function Length({ x1, x2, y, text }: { x1: number; x2: number; y: number; text: string }) {
  return (
    <g>
      <path
        d={`M ${x1} ${y - 5} v 10 M ${x2} ${y - 5} v 10 M ${x1} ${y} H ${x2}`}
        stroke={SECOND}
        strokeWidth={1}
      />
      <SvgText x={(x1 + x2) / 2} y={y - 3} mono size={12.5} rim={PANEL}>
        {text}
      </SvgText>
    </g>
  );
}

function Height({
  x,
  y1,
  y2,
  text,
  left = false,
}: {
  x: number;
  y1: number;
  y2: number;
  text: string;
  left?: boolean;
}) {
  return (
    <g>
      <path
        d={`M ${x - 5} ${y1} h 10 M ${x - 5} ${y2} h 10 M ${x} ${y1} V ${y2}`}
        stroke={SECOND}
        strokeWidth={1}
      />
      <SvgText
        x={left ? x - 8 : x + 8}
        y={(y1 + y2) / 2 + 4}
        anchor={left ? "end" : "start"}
        mono
        size={12.5}
      >
        {text}
      </SvgText>
    </g>
  );
}
