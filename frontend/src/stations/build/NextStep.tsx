import { Box, Button, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { BuildStep } from "../../api/client";
import { FRAME } from "../shared/frame";
import { HeldWords } from "./HeldWords";
import { Photos } from "./Photos";
import { Because, Drawing, Fields, Said } from "./StepParts";
import { useEntryForm } from "./useEntryForm";
import type { PhotosHeld } from "./usePhotos";
import type { Ticks } from "./useTicks";
import { minutes } from "./words";

interface Props {
  step: BuildStep;
  /** Of all steps, by their ids. */
  titles: ReadonlyMap<string, string>;
  ticks: Ticks;
  photos: PhotosHeld;
  readOnly: boolean;
  isNext: boolean;
  onBack: () => void;
  onDone: () => void;
  onChoose: (step: string) => void;
}

/** On a phone the readout stands below; what the thumb wants stands over it. */
const READOUT = "96px";

/** The last that is said of a step holds; times come in whole seconds. */
const JUST_AFTER_MS = 1000;

type Asking = "" | "later" | "undone" | "overrule";

const ASKED: Record<Exclude<Asking, "">, string> = {
  later: "Not now, because",
  undone: "Not done any more, because",
  overrule: "Done all the same, because",
};

/** One step in large type with its numbers and its little drawing; one thumb to tick it. */
export function NextStep({ step, titles, ticks, photos, readOnly, isNext, onBack, onDone, onChoose }: Props) {
  const [asking, setAsking] = useState<Asking>("");
  const back = ticks.back.find((entry) => entry.entry.step === step.id);
  const form = useEntryForm(step, back?.entry);
  const say = (doing: "done" | "undone" | "later", reason = "") => {
    ticks.say(step, doing, { ...form.more(), reason });
    setAsking("");
    if (doing !== "undone") onDone();
  };
  /** It was done when it was done: what it cures until stays, and so does the reason that it was done for all the same. */
  const keep = () => {
    const at = new Date(Date.parse(step.at ?? "") + JUST_AFTER_MS).toISOString();
    ticks.say(step, "done", { ...form.more(), reason: step.reason, at });
    onDone();
  };
  return (
    <Box {...FRAME} p={{ base: "4", md: "5" }} data-step={step.id} data-done-step={step.done}>
      <Flex gap="3" fontSize="sm" color="ink.second" align="baseline">
        <Box>{isNext ? "next" : step.done ? "done" : "chosen"}</Box>
        <Box fontFamily="mono">{`about ${minutes(step.minutes)}`}</Box>
        {step.critical && <Box color="copper">on the longest way to the event</Box>}
        {!isNext && (
          <button type="button" className="quiet" onClick={onBack}>
            back to the next step
          </button>
        )}
      </Flex>
      <Box
        as="h2"
        fontSize={{ base: "22px", md: "26px" }}
        fontWeight="700"
        lineHeight="1.22"
        mt="1"
        data-title
      >
        {step.title}
      </Box>
      {step.why && <Box mt="1">{step.why}</Box>}
      <Drawing step={step} />
      {step.found.length > 0 && (
        <Box role="note" bg="copper.wash" px="2" py="1" mt="2" data-found>
          {`Found here before: ${step.found.join("; ")}.`}
        </Box>
      )}
      {step.once_more && (
        <Box role="note" bg="copper.wash" px="2" py="1" mt="2" data-once-more>
          {`${step.once_more}: once more?`}
          {step.again.length > 0 && (
            <Listed
              words="To get there, these have to be opened again:"
              steps={step.again}
              {...{ titles, onChoose }}
            />
          )}
        </Box>
      )}
      {step.looks.length > 0 && (
        <Box mt="2" data-looks={step.looks.length}>
          <b>{step.kind === "sign_off" ? "Done all the same, with a reason" : "Look again at"}</b>
          <Box as="ul" pl="5" listStyleType="square">
            {step.looks.map((look) => (
              <li key={`${look.step} ${look.words}`}>{look.words}</li>
            ))}
          </Box>
        </Box>
      )}
      {step.cautions.map((caution) => (
        <Box
          key={caution}
          borderLeftWidth="4px"
          borderColor="ochre"
          pl="3"
          mt="2"
          lineHeight="1.35"
          data-caution
        >
          {caution}
        </Box>
      ))}
      {step.tools.length > 0 && (
        <Box fontSize="sm" color="ink.second" mt="2">{`To hand: ${step.tools.join(", ")}`}</Box>
      )}
      {back && <HeldWords reasons={back.reasons} taken onChoose={onChoose} />}
      {!step.done && !back && <HeldWords reasons={step.held} onChoose={onChoose} />}
      {!readOnly && (
        <>
          <Fields step={step} form={form} />
          <Flex
            gap="2"
            mt="3"
            wrap="wrap"
            position={{ base: "sticky", md: "static" }}
            bottom={READOUT}
            bg="panel"
            py={{ base: "2", md: "0" }}
            data-actions
          >
            {!step.done && (
              <Button
                variant="solid"
                minH="60px"
                fontSize="20px"
                flex={{ base: "1 1 170px", md: "0 1 240px" }}
                onClick={() => (step.held.length ? setAsking("overrule") : say("done"))}
                data-tick
              >
                {step.held.length ? "Done all the same" : step.kind === "sign_off" ? "Sign off" : "Done"}
              </Button>
            )}
            {!step.done && back && step.held.length === 0 && (
              <Button minH={{ base: "60px", md: "44px" }} onClick={() => setAsking("overrule")}>
                Done all the same, because …
              </Button>
            )}
            {!step.done && (
              <Button minH={{ base: "60px", md: "44px" }} onClick={() => setAsking("later")}>
                Not now, because …
              </Button>
            )}
            {step.done && step.once_more && (
              <Button variant="solid" minH="44px" onClick={() => say("done")}>
                Done once more
              </Button>
            )}
            {step.done && (
              <Button minH="44px" onClick={() => setAsking("undone")}>
                Not done any more, because …
              </Button>
            )}
            {step.done && !step.once_more && (
              <Button minH="44px" onClick={keep} disabled={!form.changed}>
                Keep value and note
              </Button>
            )}
          </Flex>
          {asking && (
            <Because
              words={ASKED[asking]}
              onCancel={() => setAsking("")}
              onSay={(reason) => say(asking === "overrule" ? "done" : asking, reason)}
            />
          )}
          <Photos step={step} photos={photos} />
        </>
      )}
      {step.by && step.at && <Said step={step} />}
    </Box>
  );
}

interface ListedProps {
  words: string;
  steps: string[];
  titles: ReadonlyMap<string, string>;
  onChoose: (step: string) => void;
}

/** Steps by their titles, each one touch away. */
function Listed({ words, steps, titles, onChoose }: ListedProps) {
  return (
    <Box mt="1">
      {words}
      {steps.map((id) => (
        <Box key={id}>
          <button type="button" className="link" onClick={() => onChoose(id)}>
            {titles.get(id) ?? id}
          </button>
        </Box>
      ))}
    </Box>
  );
}
