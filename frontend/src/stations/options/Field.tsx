import { Box, Flex } from "@chakra-ui/react";
import { ticks } from "d3-array";
import { type KeyboardEvent, useState } from "react";
import type { OptionMeasure, Options } from "../../api/client";
import { useWidth } from "../../drawing/useWidth";
import { digits, type Units, useUnits } from "../../ui/fields/units";
import { runText } from "../../ui/readout/Readout";
import { label } from "../../words/measures";
import { type Spot, walk } from "./field";
import { type Axis, firstAxes, HEIGHT, layOut, MARGIN, type Seen } from "./layOut";

interface Props {
  options: Options;
  chosen: number;
  onChoose: (index: number) => void;
}

const SPRUCE = "var(--chakra-colors-spruce)";
const INK = "var(--chakra-colors-ink)";
const SECOND = "var(--chakra-colors-ink-second)";

/** Options as points over two measures: targets as lines, the best edge joined and walked along by key. */
export function Field({ options, chosen, onChoose }: Props) {
  const units = useUnits();
  const [axes, setAxes] = useState(() => firstAxes(options));
  const [ref, width] = useWidth<HTMLDivElement>(560);
  const seen = layOut(options, axes, units, width);
  const here = seen.spots.find((spot) => spot.index === chosen);
  const onKeyDown = (event: KeyboardEvent) => {
    const by = ({ ArrowRight: 1, ArrowLeft: -1 } as const)[event.key];
    if (!by) return;
    event.preventDefault();
    onChoose(walk(seen.spots, seen.edge, chosen, by));
  };
  return (
    <Box minW="0" data-field-of-options>
      <Flex gap="2" align="center" wrap="wrap" fontSize="sm">
        <AxisChoice
          label="Upwards"
          options={options}
          place={axes[1]}
          onChange={(p) => setAxes([axes[0], p])}
        />
        over
        <AxisChoice
          label="Across"
          options={options}
          place={axes[0]}
          onChange={(p) => setAxes([p, axes[1]])}
        />
      </Flex>
      <Box
        ref={ref}
        tabIndex={0}
        role="group"
        aria-label={spoken(options, seen.x, seen.y, here)}
        onKeyDown={onKeyDown}
      >
        <svg width={width} height={HEIGHT} aria-hidden="true" style={{ display: "block" }}>
          <Scales seen={seen} width={width} />
          <Spots seen={seen} options={options} here={here} onChoose={onChoose} />
        </svg>
      </Box>
      <Box fontSize="12.5px" color="ink.second">
        The best at each ratio; ← → walk along the best edge. Filled: meets all; open: misses; cross: present;
        dashed: targets.
      </Box>
    </Box>
  );
}

/** The axes with their marks, and the targets as lines. */
function Scales({ seen, width }: { seen: Seen; width: number }) {
  const { atX, atY } = seen;
  const across = (v: number) => `M ${MARGIN.left} ${atY(v)} H ${width - MARGIN.right}`;
  const up = (v: number) => `M ${atX(v)} ${MARGIN.top} V ${HEIGHT - MARGIN.bottom}`;
  return (
    <>
      {ticks(...seen.spanX, Math.max(3, width / 90)).map((v) => (
        <text key={`x${v}`} x={atX(v)} y={HEIGHT - 8} textAnchor="middle" className="axis">
          {digits(v)}
        </text>
      ))}
      {ticks(...seen.spanY, 5).map((v) => (
        <g key={`y${v}`}>
          <path d={across(v)} className="gridline" />
          <text x={MARGIN.left - 6} y={atY(v) + 4} textAnchor="end" className="axis">
            {digits(v)}
          </text>
        </g>
      ))}
      <path
        d={`M ${MARGIN.left} ${MARGIN.top} V ${HEIGHT - MARGIN.bottom} H ${width - MARGIN.right}`}
        fill="none"
        stroke={SECOND}
      />
      {seen.x.bounds.map((v) => (
        <path key={`bx${v}`} d={up(v)} className="bound" />
      ))}
      {seen.y.bounds.map((v) => (
        <path key={`by${v}`} d={across(v)} className="bound" />
      ))}
    </>
  );
}

interface SpotsProps {
  seen: Seen;
  options: Options;
  here: Spot | undefined;
  onChoose: (index: number) => void;
}

/** The options as points, the best edge, the present design as a cross, and a ring around the chosen one. */
function Spots({ seen, options, here, onChoose }: SpotsProps) {
  const { edge, spots, now, atX, atY } = seen;
  return (
    <>
      {edge.length > 1 && (
        <path
          d={`M ${edge.map((s) => `${atX(s.x)} ${atY(s.y)}`).join(" L ")}`}
          fill="none"
          stroke={SPRUCE}
          strokeWidth={1.2}
          data-edge
        />
      )}
      {spots.map((spot) => (
        <Point
          key={spot.index}
          options={options}
          spot={spot}
          cx={atX(spot.x)}
          cy={atY(spot.y)}
          onChoose={onChoose}
        />
      ))}
      {now && (
        <path
          d={`M ${atX(now.x) - 6} ${atY(now.y)} h 12 M ${atX(now.x)} ${atY(now.y) - 6} v 12`}
          stroke={INK}
          strokeWidth={1.6}
          data-present
        />
      )}
      {here && (
        <circle
          cx={atX(here.x)}
          cy={atY(here.y)}
          r={9}
          fill="none"
          stroke={INK}
          strokeWidth={1.8}
          data-chosen
        />
      )}
    </>
  );
}

interface PointProps {
  options: Options;
  spot: Spot;
  cx: number;
  cy: number;
  onChoose: (index: number) => void;
}

function Point({ options, spot, cx, cy, onChoose }: PointProps) {
  const missed = options.rows[spot.index]?.targets.some(
    (t) => t.standing === "misses" || t.standing === "unknown",
  );
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the keys of the field and the list do the same
    <circle
      cx={cx}
      cy={cy}
      r={4.5}
      fill={missed ? "var(--chakra-colors-panel)" : SPRUCE}
      stroke={missed ? "var(--chakra-colors-brick)" : SPRUCE}
      strokeWidth={1.4}
      style={{ cursor: "pointer" }}
      onMouseEnter={() => onChoose(spot.index)}
      onClick={() => onChoose(spot.index)}
      data-option={spot.index}
    />
  );
}

function AxisChoice({
  label: words,
  options,
  place,
  onChange,
}: {
  label: string;
  options: Options;
  place: number;
  onChange: (place: number) => void;
}) {
  const units = useUnits();
  return (
    <select
      className="plain small"
      style={{ maxWidth: "170px" }}
      aria-label={words}
      value={place}
      onChange={(event) => onChange(Number(event.target.value))}
    >
      {options.measures.map((measure, i) =>
        options.rows.some((row) => row.values[i] != null) ? (
          <option key={`${measure.measure} ${measure.at} ${measure.wanted}`} value={i}>
            {axisText(measure, units)}
          </option>
        ) : null,
      )}
    </select>
  );
}

function axisText(measure: OptionMeasure, units: Units): string {
  const { symbol } = units.entry(measure.dimension)[units.system];
  return `${label(measure.measure, runText(measure, units))}${symbol ? `, ${symbol}` : ""}`;
}

function spoken(options: Options, x: Axis, y: Axis, here: Spot | undefined): string {
  const about = `${options.rows.length} options, ${label(y.measure.measure)} over ${label(x.measure.measure)}`;
  if (!here) return about;
  return `${about}. Option ${here.index + 1}: ${digits(here.y)} over ${digits(here.x)}`;
}
