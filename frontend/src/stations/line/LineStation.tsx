import { Box, Button, Flex } from "@chakra-ui/react";
import { type KeyboardEvent, lazy, Suspense, useDeferredValue, useState } from "react";
import type { Flow, Wheel } from "../../api/client";
import { useBar } from "../../app/TopBar";
import { at, LEAST_TEETH, teethPath, withValue } from "../../design/document";
import { LineFigure } from "../../drawing/LineFigure";
import { MOMENTS } from "../../words/measures";
import { useEdit, useFigures } from "../context";
import { SelectedPanel } from "./SelectedPanel";
import { SweepStrip } from "./SweepStrip";

const LineCharts = lazy(() => import("../../charts/LineCharts"));
const CHART_HEIGHT = 138;
const FRAME = { borderWidth: "1px", borderColor: "line", borderRadius: "3px" } as const;

/** On a phone the panel with its two large buttons comes right under the drawing. */
const AREAS = {
  gridTemplateAreas: {
    base: `"drawing" "panel" "sweep" "charts"`,
    lg: `"drawing panel" "sweep panel" "charts panel"`,
  },
  gridTemplateColumns: { base: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 292px" },
  gridTemplateRows: { lg: "auto auto 1fr" },
};

/** The heart: the power path drawn to scale, and what a change of a wheel does. */
export function LineStation() {
  const { live, selected, marked } = useFigures();
  const { edit, select, setMark, dropMark } = useEdit();
  const { preferences } = useBar();
  const [moment, setMoment] = useState<Flow["moment"]>("top speed");
  const flow = live.flows.find((f) => f.moment === moment) ?? live.flows[0];
  // The figures and the drawing come first; the charts follow when they are painted.
  const charted = useDeferredValue(live);

  const step = (wheel: Wheel, by: number) => {
    const path = teethPath(wheel.path, wheel.member);
    edit((document) => {
      const teeth = Number(at(document, path));
      return Number.isFinite(teeth) ? withValue(document, path, Math.max(LEAST_TEETH, teeth + by)) : document;
    });
  };
  const onKey = (event: KeyboardEvent) => {
    if (!preferences.letterKeys || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key.toLowerCase() === "m") setMark();
  };

  return (
    <Box display="grid" gap="2" alignItems="start" {...AREAS}>
      <Box gridArea="drawing" minW="0" bg="panel" {...FRAME} position="relative">
        <Flex
          position={{ base: "static", md: "absolute" }}
          top="2"
          right="2"
          p={{ base: "1", md: "0" }}
          gap="1"
          zIndex="1"
          data-screen-only
        >
          <MomentChoice
            moments={live.flows.map((f) => f.moment)}
            moment={flow?.moment}
            onChange={setMoment}
          />
          <Button size="xs" onClick={setMark} title="M">
            Set mark
          </Button>
          {marked && (
            <Button size="xs" onClick={dropMark}>
              Drop mark
            </Button>
          )}
        </Flex>
        <LineFigure
          line={live.view.line}
          mark={live.mark}
          flow={flow}
          selected={selected}
          onSelect={select}
          onStep={step}
          onKey={onKey}
        />
      </Box>
      <Box gridArea="panel" minW="0">
        <SelectedPanel />
      </Box>
      <Box gridArea="sweep" minW="0">
        <SweepStrip />
      </Box>
      <Box gridArea="charts" minW="0">
        <Suspense fallback={<Box h={`${CHART_HEIGHT + 30}px`} />}>
          <LineCharts live={charted} height={CHART_HEIGHT} />
        </Suspense>
      </Box>
    </Box>
  );
}

function MomentChoice({
  moments,
  moment,
  onChange,
}: {
  moments: Flow["moment"][];
  moment: Flow["moment"] | undefined;
  onChange: (moment: Flow["moment"]) => void;
}) {
  return (
    <select
      className="plain small"
      aria-label="Moment for the figures under the shafts"
      value={moment}
      onChange={(event) => onChange(event.target.value as Flow["moment"])}
    >
      {moments.map((name) => (
        <option key={name} value={name}>
          at {MOMENTS[name]?.toLowerCase()}
        </option>
      ))}
    </select>
  );
}
