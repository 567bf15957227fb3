import { Box, Flex } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import type { BuildShown, BuildStep } from "../../api/client";
import { moment } from "../../ui/when";
import { FRAME } from "../shared/frame";
import { minutes, waitsUntil } from "./words";

interface Props {
  shown: BuildShown;
  chosen: string;
  onChoose: (step: string) => void;
}

/** All steps in their order, those that can be done now standing out; done ones fold away. */
export function StepList({ shown, chosen, onChoose }: Props) {
  const [all, setAll] = useState(false);
  const list = useRef<HTMLDivElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: with another step chosen it comes into sight
  useEffect(() => {
    const row = list.current?.querySelector<HTMLElement>("[aria-current]");
    // The list alone: the step under the thumb must not move.
    list.current?.scrollTo?.({ top: (row?.offsetTop ?? 0) - ABOVE });
  }, [chosen]);
  const next = new Set(shown.next.slice(0, NEXT));
  const steps = shown.steps.filter((step) => all || !step.done || step.id === chosen || step.once_more);
  return (
    <Box
      {...FRAME}
      position="relative"
      maxH={{ lg: "calc(100vh - 260px)" }}
      overflowY={{ lg: "auto" }}
      ref={list}
      data-steps
    >
      <Flex align="baseline" gap="3">
        <Box as="h2" fontSize="lg" fontWeight="700" flex="1">
          {`${shown.steps.length - shown.done} to do`}
        </Box>
        <button type="button" className="quiet" aria-pressed={all} onClick={() => setAll(!all)}>
          {all ? "fold away what is done" : `show the ${shown.done} done`}
        </button>
      </Flex>
      <Box as="ol">
        {steps.map((step) => (
          <li key={step.id}>
            <button
              type="button"
              className="step"
              data-next={next.has(step.id) || undefined}
              data-ticked={step.done || undefined}
              aria-current={step.id === chosen ? "step" : undefined}
              onClick={() => onChoose(step.id)}
            >
              <Mark step={step} />
              <span>
                {step.title}
                <small>{below(step)}</small>
              </span>
            </button>
          </li>
        ))}
      </Box>
    </Box>
  );
}

const NEXT = 3;
/** Pixels of the list that stay above the chosen row. */
const ABOVE = 44;

function below(step: BuildStep): string {
  if (step.once_more) return `${step.once_more}: once more?`;
  if (step.done)
    return `${step.by}, ${step.at ? moment(step.at) : ""}${step.value ? `; ${step.value} ${step.measured_in}` : ""}`;
  if (step.later) return `not now: ${step.later}`;
  const until = waitsUntil(step);
  if (until !== null) return `waits until ${moment(until)}`;
  return `${minutes(step.minutes)}${step.own ? ", own step" : ""}`;
}

/** Done: a filled box with a tick; loose behind it or to be done again: a half one; else an empty box. */
function Mark({ step }: { step: BuildStep }) {
  const words = step.once_more ? "done, once more?" : step.done ? "done" : "to do";
  return (
    <svg width="18" height="18" viewBox="0 0 18 18" role="img" aria-label={words}>
      <rect
        x="1.5"
        y="1.5"
        width="15"
        height="15"
        rx="2"
        fill={step.done && !step.once_more ? "var(--chakra-colors-spruce)" : "none"}
        stroke={
          step.done && !step.once_more ? "var(--chakra-colors-spruce)" : "var(--chakra-colors-ink-second)"
        }
        strokeWidth="1.5"
        strokeDasharray={waitsUntil(step) === null ? undefined : "3 2"}
      />
      {step.done && (
        <path
          d="M4.5 9.5 L8 13 L13.5 5.5"
          fill="none"
          stroke={step.once_more ? "var(--chakra-colors-copper)" : "var(--chakra-colors-panel)"}
          strokeWidth="2"
        />
      )}
    </svg>
  );
}
