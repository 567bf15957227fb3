import { Box, Button, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { KeptPlan } from "../../../api/client";
import { show, useUnits } from "../../../ui/fields/units";
import { counted } from "../../../words/counted";
import type { PracticeRig } from "../instrument/useRig";
import { asEntry, type Entry, type RunDocument } from "../run";
import { valueText } from "../words";
import { NewPlan } from "./NewPlan";
import type { PlanDocument, PlanHeld } from "./usePlan";

type Planned = NonNullable<KeptPlan["planned"]>;
type Step = Planned["steps"][number];

interface Props {
  plan: PlanHeld;
  rig: PracticeRig;
  /** Bring a step into the form. */
  onType: (entry: Entry) => void;
  /** Show the rig at work. */
  onRig: () => void;
}

/** What is to be tried: the next step large, all of them to be ticked off, and what they take. */
export function PlanPanel({ plan, rig, onType, onRig }: Props) {
  const [anew, setAnew] = useState(false);
  const rigAction = useRigAction();
  const { kept, document } = plan;
  if (!kept) return <Box role="status" aria-label="Loading" h="120px" />;
  if (!kept.planned || !document || anew)
    return (
      <NewPlan
        onDeal={async (made) => {
          if (await plan.save(made)) setAnew(false);
        }}
        onBack={document ? () => setAnew(false) : null}
        trouble={plan.trouble}
      />
    );
  const planned = kept.planned;
  const next = planned.steps.find((step) => !step.done);
  const design = (step: Step) => document.gearings.find((gearing) => gearing.name === step.gearing)?.design;
  const type = (step: Step) => {
    const own = design(step);
    if (!own) return;
    const entry = asEntry({ ...(step.run as RunDocument), readings: [] }, null);
    onType({ ...entry, step: { key: step.key, gearing: step.gearing, design: own } });
  };
  const onTheRig = async (step: Step) => {
    const action = rigAction(step);
    if (!action || !(await rig.order(action, document.readings, null, design(step)))) return;
    onRig();
    plan.tick(step.key, "rig");
  };
  return (
    <Box as="section" aria-label="Plan" data-plan>
      {next ? (
        <NextStep
          step={next}
          readings={document.readings}
          busy={rig.state?.action !== null}
          onType={() => type(next)}
          onRig={() => void onTheRig(next)}
        />
      ) : (
        <Box fontSize="lg" fontWeight="600">
          All of it is done.
        </Box>
      )}
      {(plan.trouble || rig.trouble) && (
        <Box role="alert" color="brick">
          {plan.trouble || rig.trouble}
        </Box>
      )}
      <Totals planned={planned} />
      <Steps planned={planned} document={document} onTick={plan.tick} />
      <Flex gap="3" mt="2" data-screen-only>
        <Button size="xs" onClick={() => window.print()}>
          Print
        </Button>
        <Button size="xs" onClick={() => setAnew(true)}>
          Another plan
        </Button>
      </Flex>
    </Box>
  );
}

type RigAction = Parameters<PracticeRig["order"]>[0];

/** What the practice rig does for a step of the plan; nothing for most. */
function useRigAction(): (step: Step) => RigAction | undefined {
  const { runs } = useUnits();
  return (step) =>
    (runs.find(({ kind }) => kind === step.run.kind)?.rig || undefined) as RigAction | undefined;
}

interface NextProps {
  step: Step;
  readings: number;
  busy: boolean;
  onType: () => void;
  onRig: () => void;
}

function NextStep({ step, readings, busy, onType, onRig }: NextProps) {
  const units = useUnits();
  const rigAction = useRigAction();
  return (
    <Box data-next-step={step.key} data-screen-only>
      {step.swap && (
        <Box fontSize="17px">
          {step.change ? `Put on ${step.gearing}: ${step.change}.` : `Put on ${step.gearing}.`}
        </Box>
      )}
      <Box fontSize="22px" fontWeight="700" lineHeight="1.25">
        {`${step.words}, ${counted(readings, "reading")}, with ${step.gearing}`}
      </Box>
      {step.predicted !== null && (
        <Box color="ink.second">{`predicted ${valueText(units, step.dimension, step.predicted)}`}</Box>
      )}
      <Flex gap="2" mt="2" wrap="wrap">
        <Button variant="solid" minH="44px" px="5" onClick={onType} data-type-step>
          Type it
        </Button>
        {rigAction(step) && (
          <Button minH="44px" disabled={busy} onClick={onRig} data-rig-step>
            On the practice rig
          </Button>
        )}
      </Flex>
    </Box>
  );
}

/** How long it takes, what it draws, how warm the motors get, and what the order costs. */
function Totals({ planned }: { planned: Planned }) {
  const units = useUnits();
  const hot = planned.hottest === null ? null : show(units, "temperature", planned.hottest);
  const limit = planned.limit === null ? null : show(units, "temperature", planned.limit);
  const words = [
    `about ${Math.round(planned.seconds / 60)} min`,
    planned.share !== null && `${Math.round(100 * planned.share)} % of the battery`,
    hot && limit
      ? `windings up to ${hot.number} ${hot.unit} of ${limit.number} ${limit.unit}`
      : "how warm the motors get is not known: their heat capacities are not said",
    planned.rest !== null && `${Math.round(planned.rest)} s of rest behind each run keep them cool`,
  ].filter(Boolean);
  return (
    <Box fontSize="13.5px" color="ink.second" my="2" data-totals>
      {`${words.join(" · ")}.`}
      {planned.drift && <Box>{`${planned.drift[0]?.toUpperCase()}${planned.drift.slice(1)}.`}</Box>}
    </Box>
  );
}

interface StepsProps {
  planned: Planned;
  document: PlanDocument;
  onTick: PlanHeld["tick"];
}

/** All steps in order; on paper with an empty box for each reading. */
function Steps({ planned, document, onTick }: StepsProps) {
  const units = useUnits();
  return (
    <Box overflowX="auto" tabIndex={0} role="region" aria-label="All steps">
      <table className="plan">
        <thead>
          <tr>
            <th scope="col">done</th>
            <th scope="col">gearing</th>
            <th scope="col">what</th>
            <th scope="col">predicted</th>
            <th scope="col" className="paper">
              readings
            </th>
          </tr>
        </thead>
        <tbody>
          {planned.steps.map((step) => (
            <tr key={step.key} data-plan-step={step.key} data-done={step.done ? "" : undefined}>
              <td>
                <input
                  type="checkbox"
                  aria-label={`${step.words} with ${step.gearing}, round ${step.round}`}
                  checked={step.done !== ""}
                  onChange={(event) => onTick(step.key, event.target.checked ? "by hand" : null)}
                />
              </td>
              <td>{step.swap ? <b>{step.gearing}</b> : step.gearing}</td>
              <td>{step.words}</td>
              <td>{step.predicted === null ? "–" : valueText(units, step.dimension, step.predicted)}</td>
              <td className="paper">
                {Array.from({ length: document.readings }, (_, k) => `box ${k}`).map((box) => (
                  <span key={box} className="box" />
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}
