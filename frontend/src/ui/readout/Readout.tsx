import { memo } from "react";
import type { Gauge, Uncertainties } from "../../api/client";
import { label } from "../../words/measures";
import { change, show, type Units, useUnits } from "../fields/units";
import { StandingMark } from "../StandingMark";

interface Props {
  gauges: Gauge[];
  uncertainties: Uncertainties | null;
  stale: boolean;
  /** Opens the working behind a value. */
  onAsk: (asked: { measure: string; at: number | null }) => void;
}

/**
 * One gauge for each target and a few more measures, on every station. Plain elements with the theme's classes: it is
 * painted anew with every key press.
 */
export const Readout = memo(function Readout({ gauges, uncertainties, stale, onAsk }: Props) {
  return (
    <section className="readout" aria-label="Readout" aria-busy={stale} data-readout>
      {gauges.map((gauge, i) => (
        <GaugeView
          key={`${gauge.measure} ${gauge.target}`}
          gauge={gauge}
          band={uncertainties?.gauges[i]?.measure === gauge.measure ? uncertainties.gauges[i] : undefined}
          onAsk={onAsk}
        />
      ))}
    </section>
  );
});

export function gaugeLabel(gauge: Gauge, units: Units): string {
  return label(gauge.measure, runText(gauge, units));
}

/** The distance, speed or time a gauge refers to, in words. */
export function runText(gauge: Pick<Gauge, "measure" | "at">, units: Units): string {
  const run = units.measures.find((row) => row.name === gauge.measure)?.run;
  if (!run) return "";
  const shown = show(units, run, gauge.at);
  return `${Number(shown.number) || shown.number} ${shown.unit}`;
}

type Band = Uncertainties["gauges"][number] | undefined;

interface GaugeProps {
  gauge: Gauge;
  band: Band;
  onAsk: Props["onAsk"];
}

const GaugeView = memo(function GaugeView({ gauge, band, onAsk }: GaugeProps) {
  const units = useUnits();
  const shown = show(units, gauge.dimension, gauge.value);
  const moved = change(units, gauge.dimension, gauge.value, gauge.mark);
  return (
    <div className="gauge" data-gauge={gauge.measure} data-standing={gauge.standing}>
      <div className="name">
        {gauge.target !== null && <StandingMark standing={gauge.standing} />}
        <span>{gaugeLabel(gauge, units)}</span>
      </div>
      <div className="figure">
        <button
          type="button"
          className="value"
          onClick={() => onAsk({ measure: gauge.measure, at: gauge.at })}
          disabled={gauge.value === null}
          title="Show the working"
          aria-label={`${gaugeLabel(gauge, units)}: ${shown.number} ${shown.unit}. Show the working`}
          data-value
        >
          {shown.number}
        </button>{" "}
        <span className="unit">{shown.unit}</span>{" "}
        <span className="change" data-change>
          {moved}
        </span>
      </div>
      <Scale gauge={gauge} band={band} />
      <div className="wanted">{gauge.wanted || bandText(units, gauge, band)}</div>
    </div>
  );
});

const WIDTH = 160;

/** Where the value probably lies, in words. */
function bandText(units: Units, gauge: Gauge, band: Band): string {
  if (!band || band.low === null || band.high === null) return "";
  const low = show(units, gauge.dimension, band.low).number;
  const high = show(units, gauge.dimension, band.high).number;
  return low === high ? "" : `${low} to ${high}`;
}

/** The value on a short scale, the target as a notch, the mark as a thin stroke. */
function Scale({ gauge, band }: { gauge: Gauge; band: Band }) {
  const places = [gauge.value, gauge.lower, gauge.upper, gauge.mark, band?.high ?? null].filter(
    (v): v is number => v !== null,
  );
  if (gauge.value === null || places.length === 0) return <div style={{ height: 14 }} />;
  const high = Math.max(...places) * 1.25 || 1;
  const low = Math.min(0, ...places);
  const x = (value: number) => 3 + ((WIDTH - 6) * (value - low)) / (high - low);
  const missed = gauge.standing === "misses";
  const notch = missed ? "var(--chakra-colors-brick)" : "var(--chakra-colors-ink-second)";
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 14`}
      width={WIDTH}
      height={14}
      aria-hidden="true"
      style={{ display: "block", maxWidth: "100%" }}
    >
      <path d={`M 3 8 H ${WIDTH - 3}`} stroke="var(--chakra-colors-line)" strokeWidth={3} />
      {gauge.lower !== null && gauge.upper !== null && (
        <path
          d={`M ${x(gauge.lower)} 8 H ${x(gauge.upper)}`}
          stroke="var(--chakra-colors-ink-second)"
          strokeWidth={3}
          opacity={0.45}
        />
      )}
      {[gauge.lower, gauge.upper].map(
        (bound, i) =>
          bound !== null && (
            <path
              key={i === 0 ? "lower" : "upper"}
              d={`M ${x(bound)} 8 l -4 -6 h 8 Z M ${x(bound)} 8 v 5`}
              fill={notch}
              stroke={notch}
            />
          ),
      )}
      {band && band.low !== null && band.high !== null && (
        <rect
          x={x(band.low)}
          y={3.5}
          width={Math.max(1, x(band.high) - x(band.low))}
          height={9}
          fill="var(--chakra-colors-spruce)"
          opacity={0.28}
          data-band
        />
      )}
      {gauge.mark !== null && (
        <path
          d={`M ${x(gauge.mark)} 3 V 13`}
          stroke="var(--chakra-colors-ink-second)"
          strokeDasharray="2 2"
        />
      )}
      <path d={`M ${x(gauge.value)} 3 V 13`} stroke="var(--chakra-colors-ink)" strokeWidth={2.5} />
    </svg>
  );
}
