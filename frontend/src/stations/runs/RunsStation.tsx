import { Box, Button, Flex } from "@chakra-ui/react";
import { useCallback, useEffect, useState } from "react";
import { type Learnt, type LoggedRun, troubleText } from "../../api/client";
import { useEdit, usePlace } from "../../document/context";
import { DownloadLink } from "../../ui/DownloadLink";
import { FileInput } from "../../ui/fields/FileInput";
import { counted } from "../../words/counted";
import { FRAME } from "../shared/frame";
import { InstrumentPanel } from "./instrument/InstrumentPanel";
import { LogFilePanel } from "./instrument/LogFilePanel";
import { RigPanel } from "./instrument/RigPanel";
import { useRig } from "./instrument/useRig";
import { Lessons } from "./Lessons";
import { Log } from "./Log";
import { NewRun } from "./NewRun";
import { PlanPanel } from "./plan/PlanPanel";
import { usePlan } from "./plan/usePlan";
import { asEntry, type Entry } from "./run";
import { type Runs, useLearnt, useRuns } from "./useRuns";
import type { Waiting } from "./waiting";
import { headline } from "./words";

const NONE: ReadonlySet<string> = new Set();

const UNREAD = "The log cannot be had now. What you type is kept here, and sent later.";

/** Try it, keep it, and learn from the difference. */
export function RunsStation() {
  const runs = useRuns();
  const { readOnly } = useEdit();
  const { vehicle } = usePlace();
  const learnt = useLearnt(runs.logged);
  const [chosen, setChosen] = useState(NONE);
  const [way, setWay] = useState<Way>("Type it");
  // On paper a plan stands alone.
  const aside = way === "Plan" ? { "data-screen-only": true } : {};
  const [brought, setBrought] = useState<Entry | null>(null);
  const choose = (keys: string[]) => setChosen(new Set(keys));
  if (runs.logged === null && !runs.unread && runs.waiting.length === 0)
    return <Box role="status" aria-label="Loading" h="480px" />;
  const logged = (runs.logged ?? []).filter((run) => !run.put_away);
  const correct = (waiting: Waiting) => {
    setBrought(asEntry(waiting.document, waiting.tried));
    runs.takeBack(waiting.id);
  };
  return (
    <Box
      display="grid"
      gap="2"
      alignItems="start"
      gridTemplateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 452px" }}
      _print={{ display: "block" }}
      data-runs
    >
      <Box display="grid" gap="2" gridTemplateColumns="minmax(0, 1fr)" minW="0">
        <Box {...FRAME}>
          <Box as="h2" fontSize="xl" fontWeight="700" lineHeight="1.25" mb="2" data-headline {...aside}>
            {runs.unread ? UNREAD : headline(learnt.data, logged)}
          </Box>
          {!readOnly && (
            <Ways
              {...{ runs, brought, logged, way }}
              learnt={learnt.data}
              onBring={setBrought}
              onWay={setWay}
            />
          )}
        </Box>
        <Box {...FRAME} {...aside}>
          <Flex align="baseline" gap="3">
            <Box as="h2" fontSize="lg" fontWeight="700" flex="1">
              {runs.logged ? counted(runs.count, "run") : "Runs"}
            </Box>
            {!readOnly && (
              <label className="file small" data-screen-only>
                Open a file
                <FileInput accept=".json" onPick={(file) => void runs.open(file)} />
              </label>
            )}
            {logged.length > 0 && (
              <Button size="xs" asChild data-screen-only>
                <DownloadLink href={`/api/vehicles/${vehicle}/runs/file/`}>Save as a file</DownloadLink>
              </Button>
            )}
          </Flex>
          {runs.trouble && (
            <Box role="alert" color="brick">
              {runs.trouble}
            </Box>
          )}
          <Log runs={runs} learnt={learnt.data} chosen={chosen} readOnly={readOnly} onCorrect={correct} />
        </Box>
      </Box>
      <Box
        display="grid"
        gap="2"
        gridTemplateColumns="minmax(0, 1fr)"
        minW="0"
        aria-busy={learnt.isFetching}
        {...aside}
      >
        {learnt.data && (
          <Lessons
            learnt={learnt.data}
            chosen={chosen}
            onChoose={choose}
            onPropose={(run) => setBrought(asEntry({ ...run, readings: [] }, null))}
          />
        )}
        {learnt.isError && (
          <Box role="alert" {...FRAME}>
            {troubleText(learnt.error)}
          </Box>
        )}
      </Box>
    </Box>
  );
}

interface WaysProps {
  runs: Runs;
  logged: LoggedRun[];
  learnt: Learnt | undefined;
  brought: Entry | null;
  onBring: (entry: Entry | null) => void;
  way: Way;
  onWay: (way: Way) => void;
}

const WAYS = ["Type it", "Practice rig", "Instrument", "Logger file", "Plan"] as const;
type Way = (typeof WAYS)[number];

/** The ways in which readings come: typed, from the rig, from one's own instrument, as planned. */
function Ways({ runs, logged, learnt, brought, onBring, way, onWay }: WaysProps) {
  const plan = usePlan();
  const rig = useRig();
  useEffect(() => {
    if (brought) onWay("Type it");
  }, [brought, onWay]);
  const taken = useCallback(() => onBring(null), [onBring]);
  return (
    <>
      <Flex
        gap={{ base: "3", md: "4" }}
        mb="2"
        overflowX="auto"
        whiteSpace="nowrap"
        role="group"
        aria-label="How readings come"
        data-screen-only
      >
        {WAYS.map((one) => (
          <button
            key={one}
            type="button"
            className="tab"
            aria-pressed={way === one}
            onClick={() => onWay(one)}
          >
            {one}
          </button>
        ))}
      </Flex>
      {way === "Type it" && (
        <NewRun
          {...{ runs, learnt, brought }}
          onTaken={taken}
          onStep={(step, run) => {
            plan.tick(step.key, run);
            onWay("Plan");
          }}
        />
      )}
      {way === "Practice rig" && <RigPanel rig={rig} runs={logged} learnt={learnt} />}
      {way === "Instrument" && <InstrumentPanel runs={runs} />}
      {way === "Logger file" && <LogFilePanel runs={runs} />}
      {way === "Plan" && (
        <PlanPanel plan={plan} rig={rig} onType={onBring} onRig={() => onWay("Practice rig")} />
      )}
    </>
  );
}
