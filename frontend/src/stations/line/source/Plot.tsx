/** A small line plot for the panel, with points that can be moved; it knows no words of the job. */
import { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, useRef, useState } from "react";
import { INK, LINE, PANEL, SECOND } from "../../../drawing/colours";
import { SvgText } from "../../../drawing/SvgText";
import { BY_POINTER } from "../../../ui/dragging";

const WIDTH = 262;
const HEIGHT = 112;
const ROOM = { left: 8, right: 8, top: 16, bottom: 18 };
const STEP = 0.02;

interface Props {
  label: string;
  colour: string;
  points: [number, number][];
  x: { unit: string; format: (value: number) => string };
  y: { unit: string; format: (value: number) => string };
  /** Move a point; points cannot be moved without it. */
  onMove?: (index: number, point: [number, number]) => void;
}

export function Plot({ label, colour, points, x, y, onMove }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<{ index: number; point: [number, number] } | null>(null);
  const shown = points.map((point, i) => (held?.index === i ? held.point : point));
  const right = Math.max(...points.map(([px]) => px)) * 1.02 || 1;
  const top = Math.max(...points.map(([, py]) => py)) * 1.12 || 1;
  const wide = WIDTH - ROOM.left - ROOM.right;
  const high = HEIGHT - ROOM.top - ROOM.bottom;
  const px = (value: number) => ROOM.left + (wide * value) / right;
  const py = (value: number) => HEIGHT - ROOM.bottom - (high * value) / top;

  const at = ([clientX, clientY]: [number, number]): [number, number] => {
    const box = svg.current?.getBoundingClientRect();
    const left = clientX - (box?.left ?? 0) - ROOM.left;
    const down = HEIGHT - ROOM.bottom - (clientY - (box?.top ?? 0));
    return [Math.max(0, (left / wide) * right), Math.max(0, (down / high) * top)];
  };
  const bind = useDrag(({ args: [index], xy, movement: [dx, dy], last, canceled }) => {
    const point = dx || dy ? at(xy) : points[index];
    setHeld(last || !point ? null : { index, point });
    if (last && !canceled && point) onMove?.(index, point);
  }, BY_POINTER);
  const nudge = (event: KeyboardEvent, index: number, point: [number, number]) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    if (!by || !onMove) return;
    event.preventDefault();
    const [dx = 0, dy = 0] = by;
    onMove(index, [Math.max(0, point[0] + dx * STEP * right), Math.max(0, point[1] + dy * STEP * top)]);
  };
  return (
    <svg ref={svg} width={WIDTH} height={HEIGHT} role="group" aria-label={label} style={{ maxWidth: "100%" }}>
      <path
        d={`M ${ROOM.left} ${ROOM.top - 6} V ${HEIGHT - ROOM.bottom} H ${WIDTH - ROOM.right}`}
        fill="none"
        stroke={LINE}
      />
      <SvgText x={ROOM.left + 4} y={11} anchor="start" size={11.5} mono fill={SECOND}>
        {`${y.format(Math.max(...points.map(([, v]) => v)))} ${y.unit}`}
      </SvgText>
      <SvgText x={WIDTH - ROOM.right} y={HEIGHT - 4} anchor="end" size={11.5} mono fill={SECOND}>
        {`${x.format(Math.max(...points.map(([v]) => v)))} ${x.unit}`}
      </SvgText>
      <path
        d={shown.map(([a, b], i) => `${i ? "L" : "M"} ${px(a).toFixed(1)} ${py(b).toFixed(1)}`).join(" ")}
        fill="none"
        stroke={colour}
        strokeWidth={2}
      />
      {onMove &&
        shown.map((point, i) => (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: a point is its place on the curve
            key={i}
            cx={px(point[0])}
            cy={py(point[1])}
            r={6}
            fill={PANEL}
            stroke={INK}
            strokeWidth={1.5}
            tabIndex={0}
            role="button"
            aria-label={`Point ${i + 1}: ${x.format(point[0])} ${x.unit}, ${y.format(point[1])} ${y.unit}`}
            style={{ cursor: "move", touchAction: "none" }}
            onKeyDown={(event) => nudge(event, i, point)}
            {...bind(i)}
          />
        ))}
    </svg>
  );
}
