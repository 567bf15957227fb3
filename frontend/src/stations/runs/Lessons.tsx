import { Box, Button, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { answer, api, type Learnt, troubleText } from "../../api/client";
import { useEdit, usePlace } from "../../document/context";
import { withValue } from "../../document/document";
import { useUnits } from "../../ui/fields/units";
import { StandingMark } from "../../ui/StandingMark";
import { FRAME } from "../shared/frame";
import { InOrder } from "./InOrder";
import { OverReduction } from "./OverReduction";
import type { RunDocument } from "./run";
import { WhatWasLearnt } from "./WhatWasLearnt";

interface LessonsProps {
  learnt: Learnt;
  chosen: ReadonlySet<string>;
  onChoose: (keys: string[]) => void;
  onPropose: (run: RunDocument) => void;
}

/** Against the prediction, which is better, what was learnt, what to measure next. */
export function Lessons({ learnt, chosen, onChoose, onPropose }: LessonsProps) {
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
              {learnt.curves.map((curve, k) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: the same words may come under two conditions
                <option key={k} value={k}>
                  {curve.words}
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
  const stale = learnt.differences.filter((difference) => difference.stale);
  return (
    <Box {...FRAME} as="section" aria-label="Which is better" data-better>
      <Box as="h2" fontSize="lg" fontWeight="700">
        Which is better
      </Box>
      {learnt.differences
        .filter((difference) => !difference.stale)
        .map((difference) => (
          <Difference key={difference.words} one={difference} />
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
      const reply = await answer(
        api.POST("/api/vehicles/{vehicle}/learnt/", { params: { path: { vehicle } } }),
      );
      edit(
        (document) =>
          Object.entries(reply.values).reduce(
            (next, [path, value]) => withValue(next, path, value),
            document,
          ),
        "use what was learnt",
      );
    } catch (error) {
      setTrouble(troubleText(error));
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
      {learnt.next.map((entry) => (
        <Flex key={entry.words} gap="3" py="1" borderTopWidth="1px" borderColor="line" align="center">
          <Box flex="1" fontSize="14px">
            {entry.words}
            <Box color="ink.second" fontSize="13px">
              {`three readings take ${Math.round(100 * entry.cuts)} % of the variance out of the most doubtful target`}
            </Box>
          </Box>
          {units.runs.some((kind) => kind.kind === entry.run.kind) && (
            <Button size="xs" onClick={() => onPropose(entry.run as RunDocument)}>
              Measure it
            </Button>
          )}
        </Flex>
      ))}
    </Box>
  );
}
