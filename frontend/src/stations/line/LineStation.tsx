import { Box, Button } from "@chakra-ui/react";
import { memo, Suspense, useCallback, useEffect, useState } from "react";
import type { Flow, Wheel } from "../../api/client";
import { Last, Later, useEdit, useFigures } from "../../document/context";
import { LineFigure } from "../../drawing/LineFigure";
import { show, useUnits } from "../../ui/fields/units";
import { part } from "../../ui/frame/part";
import { MOMENTS } from "../../words/measures";
import { CheckFirst } from "../shared/CheckFirst";
import { LineTable } from "./LineTable";
import { Lower } from "./lower/Lower";
import { SweepStrip, useTake } from "./SweepStrip";
import { SelectedPanel } from "./selected/SelectedPanel";
import { StageStrip } from "./selected/StageStrip";
import { useLineKeys } from "./useLineKeys";
import { useSteps } from "./useSteps";

const LineCharts = part(() => import("./LineCharts").then((m) => m.default));
const CHART_HEIGHT = 124;
const FRAME = { borderWidth: "1px", borderColor: "line", borderRadius: "3px" } as const;

/** On a phone the panel with its two large buttons comes right under the drawing. */
const AREAS = {
  gridTemplateAreas: {
    base: `"drawing" "panel" "lower"`,
    lg: `"drawing panel" "lower panel"`,
  },
  gridTemplateColumns: { base: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 292px" },
  gridTemplateRows: { lg: "auto 1fr" },
};

/** The heart: the power path drawn to scale, and what a change of a wheel does. */
export function LineStation() {
  return (
    <Box display="grid" gap="2" alignItems="start" {...AREAS} _print={{ display: "block" }}>
      <Box gridArea="drawing" minW="0" bg="panel" {...FRAME} position="relative">
        <Drawing />
      </Box>
      <Box gridArea="panel" minW="0" data-screen-only>
        <Later>
          <CheckFirst />
          <SelectedPanel />
        </Later>
      </Box>
      <Box gridArea="lower" minW="0">
        <Lower>
          <Last>
            <Box display="grid" gap="2">
              <SweepStrip />
              <Charts />
            </Box>
          </Last>
        </Lower>
      </Box>
    </Box>
  );
}

function Charts() {
  const { live } = useFigures();
  const { wish } = useEdit();
  const onPick = useCallback((picked: number) => wish({ picked }), [wish]);
  return (
    <Suspense fallback={<Box h={`${CHART_HEIGHT + 30}px`} />}>
      <LineCharts live={live} height={CHART_HEIGHT} onPick={onPick} />
    </Suspense>
  );
}

/** The drawing with what is chosen about it, its stages as a strip, and itself as a table. */
function Drawing() {
  const { live, sweep, selected, wish, marked } = useFigures();
  const edit = useEdit();
  const [moment, setMoment] = useState<Flow["moment"]>("top speed");
  const [table, setTable] = useState(false);
  const [end, setEnd] = useState("");
  const flow = live.flows.find((f) => f.moment === moment) ?? live.flows.find((f) => f.moment !== "picked");
  const onTable = useCallback(() => setTable((old) => !old), []);
  const onKey = useLineKeys(onTable);
  // A moment picked on a chart is meant to be seen at once.
  useEffect(() => setMoment(wish.picked === undefined ? "top speed" : "picked"), [wish.picked]);
  const onRoom = useCallback((longest: number) => edit.wish({ longest }), [edit]);

  const steps = useSteps();
  const step = (wheel: Wheel, by: number, any: boolean, held: boolean) => {
    if (wheel.teeth === null) return stepSweep(by);
    const [more, key] = by > 0 ? ["larger", "↑"] : ["smaller", "↓"];
    const there = steps(wheel, by, any);
    if (there) edit.hold(held);
    setEnd(there || any ? "" : `No ${more} ${wheel.noun} in the bin; Alt ${key} for any size.`);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is said of the wheel that was selected then
  useEffect(() => setEnd(""), [selected]);
  // What has no teeth goes through the sizes that the core has tried.
  const take = useTake();
  const stepSweep = (by: number) => {
    const next = sweep?.columns[sweep.here + by];
    if (sweep && next?.values) take(sweep, next);
  };
  return (
    <>
      <LineFigure
        line={live.view.line}
        mark={live.mark}
        flow={flow}
        selected={selected}
        readOnly={edit.readOnly}
        onSelect={edit.select}
        onStep={step}
        onSweep={stepSweep}
        onTeeth={(wheel, teeth, gesture) => edit.set(wheel.place, teeth, gesture)}
        onKey={onKey}
        onHold={edit.hold}
        onRoom={onRoom}
      />
      <div className="strip">
        <StageStrip onSweep={stepSweep} />
        <span className="end" role="status" data-end>
          {end}
        </span>
        <div className="tools" data-screen-only>
          <MomentChoice flows={live.flows} moment={flow?.moment} onChange={setMoment} />
          <Tools marked={marked !== null} table={table} onTable={onTable} />
        </div>
      </div>
      {table && <LineTable live={live} flow={flow} />}
    </>
  );
}

interface ToolsProps {
  marked: boolean;
  table: boolean;
  onTable: () => void;
}

const Tools = memo(function Tools({ marked, table, onTable }: ToolsProps) {
  const { setMark, dropMark } = useEdit();
  return (
    <>
      <Button size="xs" onClick={setMark} title="M" aria-label="Set mark">
        Mark
      </Button>
      {marked && (
        <Button size="xs" onClick={dropMark}>
          Drop it
        </Button>
      )}
      <Button size="xs" aria-pressed={table} onClick={onTable} title="T" aria-label="The drawing as a table">
        Table
      </Button>
    </>
  );
});

function MomentChoice({
  flows,
  moment,
  onChange,
}: {
  flows: Flow[];
  moment: Flow["moment"] | undefined;
  onChange: (moment: Flow["moment"]) => void;
}) {
  const units = useUnits();
  const words = (flow: Flow) =>
    flow.moment === "picked"
      ? Object.values(show(units, "speed", flow.vehicle_speed)).join(" ")
      : MOMENTS[flow.moment]?.toLowerCase();
  return (
    <select
      className="plain small"
      aria-label="Moment for the figures under the shafts"
      value={moment}
      onChange={(event) => onChange(event.target.value as Flow["moment"])}
    >
      {flows.map((flow) => (
        <option key={flow.moment} value={flow.moment}>
          at {words(flow)}
        </option>
      ))}
    </select>
  );
}
