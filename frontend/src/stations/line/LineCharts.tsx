/** The charts of the Line: force over speed, the run from rest, and the currents in it, with one cursor through all. */
import { Box } from "@chakra-ui/react";
import { memo, useMemo } from "react";
import type { Live } from "../../api/client";
import { ChartPanel } from "../../drawing/charts/ChartPanel";
import { CursorProvider } from "../../drawing/charts/Cursor";
import { currentData, forceData, plain, runData } from "../../drawing/charts/chartData";
import { useUnits } from "../../ui/fields/units";

interface Props {
  live: Live;
  height: number;
  /** A moment chosen on a chart, as a speed of the run, m/s. */
  onPick: (speed: number) => void;
}

export default memo(function LineCharts({ live, height, onPick }: Props) {
  const units = useUnits();
  const charts = useMemo(
    () =>
      [forceData(live, units), runData(live, units), currentData(live, units)].filter(
        (data) => data !== null,
      ),
    [live, units],
  );
  return (
    <CursorProvider run={live.view.run} onPick={onPick}>
      <Box
        display="grid"
        gridTemplateColumns={{ base: "1fr", md: `repeat(${Math.max(2, charts.length)}, minmax(0, 1fr))` }}
        gap="2"
      >
        {charts.map((data) => (
          <ChartPanel key={data.series[0]?.key} data={data} height={height} format={plain} />
        ))}
        {!live.view.run && (
          <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p="6" color="ink.second">
            It does not start, so there is no run to show.
          </Box>
        )}
      </Box>
    </CursorProvider>
  );
});
