import { Box, Button, Flex } from "@chakra-ui/react";
import { useCallback, useEffect, useState } from "react";
import { answer, api, type Learnt, type LoggedRun } from "../../api/client";
import { useEdit, usePlace } from "../../document/context";
import { withValue } from "../../document/document";
import { useUnits } from "../../ui/fields/units";
import { StandingMark } from "../../ui/StandingMark";
import { InOrder } from "./InOrder";
import { InstrumentPanel } from "./instrument/InstrumentPanel";
import { LogFilePanel } from "./instrument/LogFilePanel";
import { RigPanel } from "./instrument/RigPanel";
import { useRig } from "./instrument/useRig";
import { Log } from "./Log";
import { NewRun } from "./NewRun";
import { OverReduction } from "./OverReduction";
import { PlanPanel } from "./plan/PlanPanel";
import { usePlan } from "./plan/usePlan";
import { asEntry, type Entry, type RunDocument } from "./run";
import { type Runs, useLearnt, useRuns } from "./useRuns";
import { WhatWasLearnt } from "./WhatWasLearnt";
import type { Waiting } from "./waiting";
import { headline } from "./words";

const FRAME = { bg: "panel", borderWidth: "1px", borderColor: "line", borderRadius: "3px", p: "3" } as const;
const NONE: ReadonlySet<string> = new Set();

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
  if (runs.logged === null && runs.waiting.length === 0)
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
            {headline(learnt.data, logged)}
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
              {logged.length === 1 ? "1 run" : `${logged.length} runs`}
            </Box>
            {!readOnly && (
              <label className="file small" data-screen-only>
                Open a file
                <input
                  type="file"
                  accept=".json"
                  onChange={(event) => {
                    const file = event.target.files?.[0];
                    if (file) void runs.open(file);
                    event.target.value = "";
                  }}
                />
              </label>
            )}
            {logged.length > 0 && (
              <Button size="xs" asChild data-screen-only>
                <a href={`/api/vehicles/${vehicle}/runs/file/`}>Save as a file</a>
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
            {learnt.error instanceof Error ? learnt.error.message : "What the runs show cannot be had now."}
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
      <Flex gap="4" mb="2" role="group" aria-label="How readings come" data-screen-only>
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
            void plan.tick(step.key, run);
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

interface LessonsProps {
  learnt: Learnt;
  chosen: ReadonlySet<string>;
  onChoose: (keys: string[]) => void;
  onPropose: (run: RunDocument) => void;
}

/** Against the prediction, which is better, what was learnt, what to measure next. */
function Lessons({ learnt, chosen, onChoose, onPropose }: LessonsProps) {
  const [place, setPlace] = useState(0);
  const curve = learnt.curves[Math.min(place, learnt.curves.length - 1)];
  return (
    <>
      {curve && (
        <Box {...FRAME}>
          {learnt.curves.length > 1 && (
            <select
              className="plain small"
              aria-label="Which measure"
              value={place}
              onChange={(event) => setPlace(Number(event.target.value))}
            >
              {learnt.curves.map((one, k) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: the same words may come under two conditions
                <option key={k} value={k}>
                  {one.words}
                </option>
              ))}
            </select>
          )}
          <OverReduction curve={curve} onChoose={onChoose} />
          {learnt.runs.length > 0 && (
            <Box mt="3">
              <InOrder runs={learnt.runs} chosen={chosen} onChoose={onChoose} />
            </Box>
          )}
        </Box>
      )}
      <Better learnt={learnt} />
      {learnt.unknowns.length > 0 && (
        <Box {...FRAME}>
          <Using learnt={learnt} />
        </Box>
      )}
      <Next learnt={learnt} onPropose={onPropose} />
    </>
  );
}

/** Which differences are real, and what would settle the others. */
function Better({ learnt }: { learnt: Learnt }) {
  if (learnt.differences.length === 0) return null;
  const stale = learnt.differences.filter((one) => one.stale);
  return (
    <Box {...FRAME} as="section" aria-label="Which is better" data-better>
      <Box as="h2" fontSize="lg" fontWeight="700">
        Which is better
      </Box>
      {learnt.differences
        .filter((one) => !one.stale)
        .map((one) => (
          <Difference key={one.words} one={one} />
        ))}
      {stale.length > 0 && (
        <details>
          <summary>{`${stale.length} with something else changed since`}</summary>
          {stale.map((one) => (
            <Difference key={one.words} one={one} />
          ))}
        </details>
      )}
    </Box>
  );
}

function Difference({ one }: { one: Learnt["differences"][number] }) {
  return (
    <Flex gap="2" py="1" borderTopWidth="1px" borderColor="line" fontSize="14px" data-real={one.real}>
      <Box pt="3px">
        <StandingMark standing={one.real ? "holds" : "unknown"} />
      </Box>
      <Box>
        {one.real ? (
          <b>{`${one.ahead} is better than ${one.behind}`}</b>
        ) : (
          `${one.ahead} and ${one.behind} cannot be told apart yet`
        )}
        <Box color="ink.second" fontSize="13px">
          {[one.words, one.settle].filter(Boolean).join(". ")}.
        </Box>
      </Box>
    </Flex>
  );
}

/** What was learnt, and putting it into the design. */
function Using({ learnt }: { learnt: Learnt }) {
  const { vehicle } = usePlace();
  const { edit, readOnly } = useEdit();
  const [using, setUsing] = useState(false);
  const [trouble, setTrouble] = useState("");
  const use = async () => {
    setUsing(true);
    setTrouble("");
    try {
      const made = await answer(
        api.POST("/api/vehicles/{vehicle}/learnt/", { params: { path: { vehicle } } }),
      );
      edit(
        (document) =>
          Object.entries(made.values).reduce((next, [path, value]) => withValue(next, path, value), document),
        "use what was learnt",
      );
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : "There is no connection: nothing was changed.");
    }
    setUsing(false);
  };
  return (
    <>
      <WhatWasLearnt learnt={learnt} readOnly={readOnly} using={using} onUse={() => void use()} />
      {trouble && (
        <Box role="alert" color="brick">
          {trouble}
        </Box>
      )}
    </>
  );
}

interface NextProps {
  learnt: Learnt;
  onPropose: (run: RunDocument) => void;
}

/** The measurements that would cut the doubt in the targets most. */
function Next({ learnt, onPropose }: NextProps) {
  const units = useUnits();
  if (learnt.next.length === 0) return null;
  return (
    <Box {...FRAME} as="section" aria-label="What to measure next" data-next>
      <Box as="h2" fontSize="lg" fontWeight="700">
        What to measure next
      </Box>
      {learnt.next.map((one) => (
        <Flex key={one.words} gap="3" py="1" borderTopWidth="1px" borderColor="line" align="center">
          <Box flex="1" fontSize="14px">
            {one.words}
            <Box color="ink.second" fontSize="13px">
              {`three readings take ${Math.round(100 * one.cuts)} % of the variance out of the most doubtful target`}
            </Box>
          </Box>
          {units.runs.some((kind) => kind.kind === one.run.kind) && (
            <Button size="xs" onClick={() => onPropose(one.run as RunDocument)}>
              Measure it
            </Button>
          )}
        </Flex>
      ))}
    </Box>
  );
}
