import { Box, Flex } from "@chakra-ui/react";
import { memo } from "react";
import type { Gauge, Uncertainties } from "../../api/client";
import { label } from "../../words/measures";
import { change, show, type Units, useUnits } from "../fields/units";
import { StandingMark } from "../StandingMark";

/** One gauge for each target and a few more measures, on every station. */
interface Props {
  gauges: Gauge[];
  uncertainties: Uncertainties | null;
  stale: boolean;
  /** Opens the working behind a value. */
  onAsk: (asked: { measure: string; at: number | null }) => void;
}

export const Readout = memo(function Readout({ gauges, uncertainties, stale, onAsk }: Props) {
  return (
    <Flex
      as="section"
      aria-label="Readout"
      aria-busy={stale}
      bg="panel"
      borderTopWidth="1px"
      borderColor="line"
      px="4"
      py="1"
      gap="4"
      overflowX="auto"
      opacity={stale ? 0.6 : 1}
      data-readout
    >
      {gauges.map((gauge, i) => (
        <GaugeView
          key={`${gauge.measure} ${gauge.target}`}
          gauge={gauge}
          band={uncertainties?.gauges[i]?.measure === gauge.measure ? uncertainties.gauges[i] : undefined}
          onAsk={onAsk}
        />
      ))}
    </Flex>
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
    <Box minW="168px" flex="1 1 0" maxW="230px" data-gauge={gauge.measure} data-standing={gauge.standing}>
      <Flex gap="2" align="center" fontSize="sm" lineHeight="1.35">
        {gauge.target !== null && <StandingMark standing={gauge.standing} />}
        <Box as="span" whiteSpace="nowrap">
          {gaugeLabel(gauge, units)}
        </Box>
      </Flex>
      <Box fontFamily="mono" lineHeight="1.25" whiteSpace="nowrap">
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
        <Box as="span" fontSize="sm">
          {shown.unit}
        </Box>{" "}
        <Box as="span" fontSize="sm" color="ink.second" data-change>
          {moved}
        </Box>
      </Box>
      <Scale gauge={gauge} band={band} />
      <Box fontSize="xs" color="ink.second" minH="1.2em" lineHeight="1.3">
        {gauge.wanted || bandText(units, gauge, band)}
      </Box>
    </Box>
  );
});

const WIDTH = 160;

/** The value on a short scale, the target as a notch, the mark as a thin stroke. */
/** Where the value probably lies, in words. */
function bandText(units: Units, gauge: Gauge, band: Band): string {
  if (!band || band.low === null || band.high === null) return "";
  const low = show(units, gauge.dimension, band.low).number;
  const high = show(units, gauge.dimension, band.high).number;
  return low === high ? "" : `${low} to ${high}`;
}

function Scale({ gauge, band }: { gauge: Gauge; band: Band }) {
  const places = [gauge.value, gauge.lower, gauge.upper, gauge.mark, band?.high ?? null].filter(
    (v): v is number => v !== null,
  );
  if (gauge.value === null || places.length === 0) return <Box h="14px" />;
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
