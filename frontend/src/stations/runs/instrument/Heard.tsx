import { Box, Flex } from "@chakra-ui/react";
import type { Listened } from "../../../api/client";
import { useWidth } from "../../../drawing/useWidth";
import { digits, show, useUnits } from "../../../ui/fields/units";
import { Axes } from "../Axes";
import { FRAME, line, scales, span } from "../plot";
import type { RunDocument } from "../run";

const HEIGHT = 150;

/** What an instrument says: the value now in large figures, its curve, and the readings that were found in it. */
export function Heard({ listened }: { listened: Listened }) {
  const units = useUnits();
  const [ref, width] = useWidth<HTMLDivElement>(420);
  // A voltage hardly moves beside what is drawn from it.
  const curve = listened.curves.find((curve) => curve.dimension !== "voltage") ?? listened.curves[0];
  const entry = curve && units.entry(curve.dimension)[units.system];
  const values = curve && entry ? curve.points.map((p) => ((p[1] ?? 0) - entry.offset) / entry.factor) : [];
  const times = curve?.points.map((p) => p[0] ?? 0) ?? [];
  const gates = listened.gates.map((gate) => gate[0] ?? 0);
  const frame = { ...FRAME, width, height: HEIGHT };
  const at = scales(frame, span([...times, ...gates], 0), span([0, ...values]));
  return (
    <Box mt="2" data-heard>
      <Flex gap="5" wrap="wrap" align="baseline">
        {listened.curves.map((curve) => {
          const { number, unit } = show(units, curve.dimension, curve.last);
          return (
            <Box key={curve.words} data-now={curve.words}>
              <Box as="span" fontFamily="mono" fontWeight="700" fontSize="26px">
                {number}
              </Box>{" "}
              {unit}
              <Box fontSize="12.5px" color="ink.second">
                {curve.words}
              </Box>
            </Box>
          );
        })}
      </Flex>
      <Box ref={ref} minW="0" mt="1">
        {values.length > 1 && (
          <svg width={width} height={HEIGHT} role="img" aria-label={`${curve?.words} over time`}>
            <Axes frame={frame} at={at} unitX="s" format={digits} />
            <path
              d={line(times, values, at)}
              fill="none"
              stroke="var(--chakra-colors-spruce)"
              strokeWidth={1.6}
              data-trace
            />
            {gates.map((t, k) => (
              <path
                // biome-ignore lint/suspicious/noArrayIndexKey: gates are passed in this order
                key={k}
                d={`M ${at.x(t)} ${FRAME.top} V ${HEIGHT - FRAME.bottom}`}
                stroke="var(--chakra-colors-ink)"
                strokeDasharray="3 3"
              />
            ))}
          </svg>
        )}
      </Box>
      {listened.faults.length > 0 && (
        <Box role="alert" color="brick" fontSize="13px">
          {listened.faults.map((fault) => (
            <Box key={fault.path}>{`${fault.path}: ${fault.problem}; ${fault.remedy}.`}</Box>
          ))}
          {listened.more > 0 && `And ${listened.more} more.`}
        </Box>
      )}
    </Box>
  );
}

/** Readings found, in one line a kind. */
export function FoundRuns({ listened, titles }: { listened: Listened; titles: Map<string, string> }) {
  return (
    <Box as="ul" listStyleType="none" p="0" mt="1" data-found>
      {listened.runs.map((run) => {
        const document = run as RunDocument;
        return (
          <li key={document.kind}>
            <b>{titles.get(document.kind) ?? document.kind}</b>{" "}
            <Box as="span" fontFamily="mono">
              {document.readings.map(String).join("   ")}
            </Box>
            {document.note ? (
              <Box as="span" color="ink.second" fontSize="13px">
                {`  ${document.note}`}
              </Box>
            ) : null}
          </li>
        );
      })}
    </Box>
  );
}
