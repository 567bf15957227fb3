import { Box } from "@chakra-ui/react";
import type { Standing } from "../../api/client";
import { teethPath } from "../../design/document";
import { digits, show, useUnits } from "../../fields/units";
import { StandingMark } from "../../marks/StandingMark";
import { gaugeLabel } from "../../readout/Readout";
import { useWork } from "../context";

/** Every gauge at six sizes of the selected wheel below and above, the present one in the middle. */
export function SweepStrip() {
  const { live, selected, set, readOnly } = useWork();
  const units = useUnits();
  const { sweep } = live;
  if (!sweep || !selected) {
    return (
      <Box
        bg="panel"
        borderWidth="1px"
        borderColor="line"
        borderRadius="3px"
        px="3"
        py="2"
        color="ink.second"
      >
        Choose a wheel in the drawing to see what six sizes below and above it would do.
      </Box>
    );
  }
  const middle = (sweep.columns.length - 1) / 2;
  const shownGauges = live.gauges
    .map((gauge, row) => ({ gauge, row }))
    .filter(({ gauge, row }) => gauge.target !== null || row < 3);
  return (
    <Box
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="3px"
      px="2"
      py="1"
      overflowX="auto"
      data-sweep
    >
      <Box
        as="table"
        w="100%"
        fontSize="12px"
        fontFamily="mono"
        css={{
          borderCollapse: "collapse",
          tableLayout: "fixed",
          "& td, & th": { textAlign: "center", px: "0", lineHeight: "1.55", fontWeight: "400" },
        }}
      >
        <caption className="visually-hidden">
          Sweep of the {sweep.member} wheel: each target at other tooth counts
        </caption>
        <thead>
          <tr>
            <Box
              as="th"
              w="138px"
              {...{ scope: "row" }}
              css={{ textAlign: "left !important", fontFamily: "body" }}
            >
              {sweep.member}, teeth
            </Box>
            {sweep.columns.map((column, i) => (
              <Box
                as="th"
                key={column.teeth}
                bg={i === middle ? "spruce.wash" : undefined}
                {...{ scope: "col" }}
              >
                <button
                  type="button"
                  disabled={readOnly || column.values === null}
                  onClick={() => set(teethPath(sweep.path, sweep.member), column.teeth)}
                  aria-label={`Take ${column.teeth} teeth`}
                  aria-current={i === middle ? "true" : undefined}
                  style={{ fontWeight: 700, cursor: "pointer", width: "100%", minHeight: 24 }}
                >
                  {column.teeth}
                </button>
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {shownGauges.map(({ gauge, row }) => {
            const unit = show(units, gauge.dimension, gauge.value).unit;
            return (
              <tr key={`${gauge.measure} ${gauge.target}`}>
                <Box
                  as="th"
                  {...{ scope: "row" }}
                  whiteSpace="nowrap"
                  overflow="hidden"
                  textOverflow="ellipsis"
                  title={gaugeLabel(gauge, units)}
                  css={{ textAlign: "left !important", fontFamily: "body" }}
                >
                  {gaugeLabel(gauge, units)}
                  {unit && `, ${unit}`}
                </Box>
                {sweep.columns.map((column, i) => {
                  const cell = column.values?.[row];
                  return (
                    <Box
                      as="td"
                      key={column.teeth}
                      bg={i === middle ? "spruce.wash" : undefined}
                      whiteSpace="nowrap"
                    >
                      {cell ? (
                        <Cell
                          text={show(units, gauge.dimension, cell.value).number}
                          standing={gauge.target === null ? null : cell.standing}
                        />
                      ) : (
                        "–"
                      )}
                    </Box>
                  );
                })}
              </tr>
            );
          })}
          <tr>
            <Box
              as="th"
              {...{ scope: "row" }}
              color="ink.second"
              css={{ textAlign: "left !important", fontFamily: "body" }}
            >
              overall
            </Box>
            {sweep.columns.map((column, i) => (
              <Box
                as="td"
                key={column.teeth}
                color="ink.second"
                bg={i === middle ? "spruce.wash" : undefined}
              >
                {column.ratio === null ? "–" : digits(units.reducing ? column.ratio : 1 / column.ratio)}
              </Box>
            ))}
          </tr>
        </tbody>
      </Box>
    </Box>
  );
}

function Cell({ text, standing }: { text: string; standing: Standing | null }) {
  return (
    <Box
      as="span"
      display="inline-flex"
      alignItems="center"
      gap="3px"
      color={standing === "misses" ? "brick" : "ink"}
    >
      {standing && <StandingMark standing={standing} size={8} />}
      {text}
    </Box>
  );
}
