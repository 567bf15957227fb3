import { Box, Button, Flex } from "@chakra-ui/react";
import { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, useState } from "react";
import type { Loads } from "../../api/client";
import { useDocument, useEdit } from "../../document/context";
import { at, type DesignDocument, withValue } from "../../document/document";
import { Field, Switch, WholeNumber } from "../../document/Field";
import { BY_POINTER } from "../../ui/dragging";
import { ChoiceField } from "../../ui/fields/ChoiceField";
import { counted } from "../../words/counted";
import { described, type Phase, stretched, stretchedTo, typedTime, widthOf } from "./blocks";

const DOES: [string, string][] = [
  ["runs", "runs"],
  ["cruise", "at top speed"],
  ["shove", "against a wall"],
  ["turns", "turning on the spot"],
  ["rest", "rest"],
];
const FIRST: Record<string, Record<string, unknown>> = {
  runs: { do: "runs", count: 4, every: "30 s" },
  cruise: { do: "cruise", for: "30 s" },
  shove: { do: "shove", for: "4 s" },
  turns: { do: "turns", for: "4 s" },
  rest: { do: "rest", for: "10 min" },
};
const REVERSES: [string, string][] = [
  ["", "where two sides of motors drive"],
  ["true", "yes"],
  ["false", "never"],
];
const SERVICES: [string, string][] = [
  ["uniform", "uniform"],
  ["light", "light shocks"],
  ["moderate", "moderate shocks"],
  ["heavy", "heavy shocks"],
];
/** Pixels that an arrow key pulls an edge by. */
const NUDGE = 8;

/** The day as a row of blocks, and how rough it is. What is touched of a usual day becomes one's own. */
export function Day({ loads }: { loads: Loads }) {
  const document = useDocument();
  const { edit, set, readOnly } = useEdit();
  const [chosen, setChosen] = useState<number | null>(null);
  const change = (how: (old: DesignDocument) => DesignDocument, gesture?: string) =>
    edit((old) => how(described(old, loads)), gesture);
  const add = () => {
    change((old) => withValue(old, `loads.day[${loads.day.length}]`, FIRST.rest));
    setChosen(loads.day.length);
  };
  const choose = (k: number) => {
    if (loads.day_assumed && !readOnly) change((old) => old);
    setChosen(k === chosen ? null : k);
  };
  const typed = chosen === null ? undefined : (at(document, `loads.day[${chosen}]`) as { do?: string });
  return (
    <Box data-day>
      <Flex gap="3" align="end" wrap="wrap" data-screen-only>
        <ChoiceField
          label="how the load comes"
          value={String(at(document, "loads.service") ?? "light")}
          options={SERVICES}
          readOnly={readOnly}
          onChange={(value) => set("loads.service", value)}
        />
        <Box w="96px">
          <WholeNumber path="loads.heats" label="heats" />
        </Box>
        <Box pb="2">
          <Switch path="loads.wet" label="pulleys get wet" />
        </Box>
        <ChoiceField
          label="thrown into full reverse"
          value={String(at(document, "loads.reverses") ?? "")}
          options={REVERSES}
          readOnly={readOnly}
          onChange={(value) => set("loads.reverses", value ? value === "true" : undefined)}
        />
        <Box w="130px">
          <Field path="loads.hours" label="hours of driving" dimension="time" optional />
        </Box>
      </Flex>
      <Flex gap="1" mt="2" wrap="wrap" align="stretch" role="group" aria-label="The blocks of one heat">
        {loads.day.map((phase, k) => (
          <Block
            // biome-ignore lint/suspicious/noArrayIndexKey: a phase is its place in the day
            key={k}
            phase={phase}
            k={k}
            chosen={k === chosen}
            assumed={loads.day_assumed}
            onChoose={() => choose(k)}
            onStretch={(lasts, gesture) => {
              const [path, value] = stretchedTo(k, phase, lasts);
              change((old) => withValue(old, path, value), gesture);
            }}
          />
        ))}
        {!readOnly && (
          <Button size="sm" alignSelf="center" onClick={add} data-screen-only>
            Add a block
          </Button>
        )}
      </Flex>
      <Box mt="1" color="ink.second" fontSize="12.5px">
        {`${loads.day_assumed ? "Taken for usual, until you touch it" : "One heat"}; ${counted(loads.heats, "heat")}. Pull a block's edge to stretch it, click it to type.`}
      </Box>
      {chosen !== null && typed && (
        <Typed k={chosen} does={String(typed.do)} onGone={() => setChosen(null)} />
      )}
    </Box>
  );
}

interface BlockProps {
  phase: Phase;
  k: number;
  chosen: boolean;
  assumed: boolean;
  onChoose: () => void;
  onStretch: (lasts: number, gesture?: string) => void;
}

function Block({ phase, k, chosen, assumed, onChoose, onStretch }: BlockProps) {
  const { readOnly } = useEdit();
  const words = phaseWords(phase);
  return (
    <Flex
      position="relative"
      minH="46px"
      w={`${widthOf(phase.lasts)}px`}
      maxW="100%"
      borderWidth="1px"
      borderStyle={assumed ? "dashed" : "solid"}
      borderColor={chosen ? "spruce" : "line"}
      borderRadius="3px"
      bg={phase.do === "rest" ? "page" : "copper.wash"}
      data-phase={phase.do}
    >
      <button
        type="button"
        className="row"
        aria-pressed={chosen}
        onClick={onChoose}
        style={{ flex: 1, minWidth: 0, textAlign: "left", padding: "3px 12px 3px 7px", overflow: "hidden" }}
      >
        <span className="visually-hidden">{`Block ${k + 1}: `}</span>
        <Box as="span" display="block" fontSize="12.5px" lineHeight="1.2" truncate>
          {words[0]}
        </Box>{" "}
        <Box as="span" display="block" fontFamily="mono" fontWeight="700" fontSize="14px" truncate data-lasts>
          {words[1]}
        </Box>
      </button>
      {!readOnly && <Edge k={k} phase={phase} onStretch={onStretch} />}
    </Flex>
  );
}

/** The right edge of a block, pulled by pointer or arrow keys. */
function Edge({ k, phase, onStretch }: Pick<BlockProps, "k" | "phase" | "onStretch">) {
  const dragged = useDrag(
    ({ movement: [by], memo = { lasts: phase.lasts, gesture: `stretch ${k} ${performance.now()}` } }) => {
      onStretch(stretched(memo.lasts, by), memo.gesture);
      return memo;
    },
    { ...BY_POINTER, axis: "x", filterTaps: true },
  );
  const onKey = (event: KeyboardEvent) => {
    const by = { ArrowRight: NUDGE, ArrowLeft: -NUDGE }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onStretch(phase.do === "runs" ? phase.lasts + Math.sign(by) * phase.seconds : stretched(phase.lasts, by));
  };
  return (
    <Box
      role="slider"
      tabIndex={0}
      aria-label={`How long block ${k + 1} lasts`}
      aria-valuenow={Math.round(phase.lasts)}
      aria-valuemin={1}
      aria-valuetext={typedTime(phase.lasts)}
      position="absolute"
      right="0"
      top="0"
      bottom="0"
      w="12px"
      cursor="ew-resize"
      touchAction="none"
      borderRightWidth="3px"
      borderColor="ink.second"
      {...dragged()}
      onKeyDown={onKey}
      data-screen-only
      data-edge={k}
    />
  );
}

/** The chosen block, typed. */
function Typed({ k, does, onGone }: { k: number; does: string; onGone: () => void }) {
  const { set, readOnly } = useEdit();
  const takeOut = () => {
    set(`loads.day[${k}]`, undefined);
    onGone();
  };
  return (
    <Flex gap="3" mt="2" align="end" wrap="wrap" data-typed={k}>
      <ChoiceField
        label={`block ${k + 1}`}
        value={does}
        options={DOES}
        readOnly={readOnly}
        onChange={(value) => set(`loads.day[${k}]`, FIRST[value])}
      />
      {does === "runs" ? (
        <>
          <Box w="96px">
            <WholeNumber path={`loads.day[${k}].count`} label="so many" />
          </Box>
          <Box w="120px">
            <Field path={`loads.day[${k}].every`} label="one every" dimension="time" />
          </Box>
        </>
      ) : (
        <Box w="120px">
          <Field path={`loads.day[${k}].for`} label="for" dimension="time" />
        </Box>
      )}
      <Button size="sm" disabled={readOnly} onClick={takeOut}>
        Take it out
      </Button>
    </Flex>
  );
}

/** What is done, and how long. */
function phaseWords({ do: does, count, seconds }: Phase): [string, string] {
  if (does === "runs") return [`${counted(count, "run")}, one every`, typedTime(seconds)];
  return [DOES.find(([key]) => key === does)?.[1] ?? does, typedTime(seconds)];
}
