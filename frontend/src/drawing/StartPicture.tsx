import type { Start } from "../api/client";
import { INK, PANEL, SECOND, SLATE } from "./colours";

const ROOM = { width: 220, height: 118, side: 14, top: 8, ground: 16 };

interface Props {
  picture: Start["picture"];
  title: string;
}

/** A vehicle from the side, as large as its room lets it be. */
export function StartPicture({ picture, title }: Props) {
  const points = extent(picture);
  const left = Math.min(...points.map(([x]) => x));
  const right = Math.max(...points.map(([x]) => x));
  const high = Math.max(...points.map(([, y]) => y));
  const base = ROOM.height - ROOM.ground;
  const scale = Math.min((ROOM.width - 2 * ROOM.side) / (right - left), (base - ROOM.top) / high);
  const x = (metres: number) => ROOM.width / 2 + (metres - (left + right) / 2) * scale;
  const y = (metres: number) => base - metres * scale;
  const path = (line: Line) => `M ${line.map(([px = 0, py = 0]) => `${x(px)} ${y(py)}`).join(" L ")}`;
  return (
    <svg
      viewBox={`0 0 ${ROOM.width} ${ROOM.height}`}
      width="100%"
      role="img"
      aria-label={`${title}, from the side`}
    >
      <GroundLine kind={picture.ground} y={base} />
      <g stroke={INK} strokeWidth={1.4} strokeLinejoin="round" fill="var(--chakra-colors-spruce-wash)">
        {picture.outlines.map((outline) => (
          <path key={path(outline)} d={`${path(outline)} Z`} />
        ))}
      </g>
      <g stroke={INK} strokeWidth={1.4} fill="none" strokeLinecap="round" strokeLinejoin="round">
        {picture.lines.map((line) => (
          <path key={path(line)} d={path(line)} />
        ))}
      </g>
      {picture.person && (
        <g stroke={SECOND} fill="none" strokeWidth={3.2} strokeLinecap="round" strokeLinejoin="round">
          {picture.person.lines.map((line) => (
            <path key={path(line)} d={path(line)} />
          ))}
          <circle cx={x(picture.person.head[0] ?? 0)} cy={y(picture.person.head[1] ?? 0)} r={HEAD * scale} />
        </g>
      )}
      {picture.wheels.map((wheel) => (
        <g key={wheel.x} stroke={SLATE}>
          <circle
            cx={x(wheel.x)}
            cy={y(wheel.radius)}
            r={wheel.radius * scale}
            fill={PANEL}
            strokeWidth={2.4}
          />
          <circle
            cx={x(wheel.x)}
            cy={y(wheel.radius)}
            r={3}
            fill={wheel.driven ? INK : PANEL}
            stroke={INK}
            strokeWidth={1.2}
          />
        </g>
      ))}
    </svg>
  );
}

const HEAD = 0.085;
type Line = Start["picture"]["lines"][number];

/** Corners between which all of it lies; of an empty bench those of a bench. */
function extent(picture: Start["picture"]): [number, number][] {
  const drawn = [...picture.outlines, ...picture.lines]
    .flat()
    .map(([x = 0, y = 0]): [number, number] => [x, y]);
  const rolling = picture.wheels.flatMap(({ x, radius }): [number, number][] => [
    [x - radius, 0],
    [x + radius, 2 * radius],
  ]);
  const [x = 0, y = 0] = picture.person?.head ?? [];
  const head: [number, number][] = picture.person ? [[x, y + HEAD]] : [];
  const all = [...drawn, ...rolling, ...head];
  return all.length > 0
    ? all
    : [
        [0, 0],
        [1, 0.5],
      ];
}

/** A floor is a line, rails lie on sleepers, snow is uneven. */
function GroundLine({ kind, y }: { kind: Start["picture"]["ground"]; y: number }) {
  const steps = Array.from({ length: 14 }, (_, i) => 8 + i * 15);
  return (
    <g stroke={SLATE} fill="none">
      <path d={`M 6 ${y} H ${ROOM.width - 6}`} strokeWidth={kind === "rail" ? 2.4 : 1.2} />
      {kind === "rail" && <path d={steps.map((x) => `M ${x} ${y + 4} h 8`).join(" ")} strokeWidth={4} />}
      {kind === "snow" && (
        <path d={steps.map((x, i) => `M ${x} ${y + 5 + (i % 3) * 2} q 4 -3 8 0`).join(" ")} strokeWidth={1} />
      )}
      {kind === "floor" && (
        <path d={steps.map((x) => `M ${x + 6} ${y} l -6 6`).join(" ")} strokeWidth={0.7} />
      )}
    </g>
  );
}
