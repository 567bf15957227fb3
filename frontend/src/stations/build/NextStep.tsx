import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useState } from "react";
import type { BuildStep } from "../../api/client";
import { useFigures } from "../../document/context";
import { MiniLine } from "../../drawing/MiniLine";
import { moment } from "../../ui/when";
import { FRAME } from "../shared/frame";
import { HeldWords } from "./HeldWords";
import { Photos } from "./Photos";
import { useEntryForm } from "./useEntryForm";
import type { Ticks } from "./useTicks";
import { minutes } from "./words";

interface Props {
  step: BuildStep;
  /** Of all steps, by their ids. */
  titles: ReadonlyMap<string, string>;
  ticks: Ticks;
  readOnly: boolean;
  isNext: boolean;
  onBack: () => void;
  onDone: () => void;
  onChoose: (step: string) => void;
}

/** On a phone the readout stands below; what the thumb wants stands over it. */
const READOUT = "96px";

type Asking = "" | "later" | "undone" | "overrule";

const ASKED: Record<Exclude<Asking, "">, string> = {
  later: "Not now, because",
  undone: "Not done any more, because",
  overrule: "Done all the same, because",
};

/** One step in large type with its numbers and its little drawing; one thumb to tick it. */
export function NextStep({ step, titles, ticks, readOnly, isNext, onBack, onDone, onChoose }: Props) {
  const [asking, setAsking] = useState<Asking>("");
  const form = useEntryForm(step);
  const back = ticks.back.find((one) => one.entry.step === step.id);
  const say = (doing: "done" | "undone" | "later", reason = "") => {
    ticks.say(step, doing, { ...form.more(), reason });
    setAsking("");
    if (doing !== "undone") onDone();
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
      {step.was && (
        <Box role="note" bg="copper.wash" px="2" py="1" mt="2" data-once-more>
          {`Done for ${step.was}, now ${step.now}: once more?`}
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
          <b>Look again at</b>
          <Box as="ul" pl="5" listStyleType="square">
            {step.looks.map((one) => (
              <li key={`${one.step} ${one.words}`}>{one.words}</li>
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
      {step.until && !step.done && (
        <Box role="note" mt="2" data-until>
          {`Wait until ${moment(step.until)}: ${step.waits_for}.`}
        </Box>
      )}
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
            {!step.done && (
              <Button minH={{ base: "60px", md: "44px" }} onClick={() => setAsking("later")}>
                Not now, because …
              </Button>
            )}
            {step.done && step.was && (
              <Button variant="solid" minH="44px" onClick={() => say("done")}>
                Done once more
              </Button>
            )}
            {step.done && (
              <Button minH="44px" onClick={() => setAsking("undone")}>
                Not done any more, because …
              </Button>
            )}
            {step.done && (
              <Button minH="44px" onClick={() => say("done")} disabled={!form.changed}>
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
          <Photos step={step} />
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

/** Who said what of it, and when. */
function Said({ step }: { step: BuildStep }) {
  const more = [
    step.value && `${step.what || "value"}: ${step.value} ${step.measured_in}`,
    step.took && `took ${minutes(step.took)}`,
    step.note,
    step.reason && `because ${step.reason}`,
  ].filter(Boolean);
  const doing = step.done ? "Done" : step.later ? "Not now" : "Opened again";
  return (
    <Box fontSize="sm" color="ink.second" mt="3" data-said>
      {`${doing}: ${step.by}, ${step.at ? moment(step.at) : ""}${more.length ? `; ${more.join("; ")}` : ""}`}
    </Box>
  );
}

/** The line in small, what this step touches standing out. */
function Drawing({ step }: { step: BuildStep }) {
  const { live } = useFigures();
  const parts = new Set(step.parts);
  // A step that names no wheel is about all of its stage.
  const whole = !step.parts.some((part) => part.includes(" "));
  const touched = (path: string, member: string) =>
    parts.has(`${path} ${member}`) || ((whole || member === "") && parts.has(path));
  if (!step.about && step.parts.every((part) => !part.startsWith("drive."))) return null;
  return (
    <Box maxW="420px" mt="2" data-drawing>
      <MiniLine line={live.view.line} name={step.title} marked={touched} />
    </Box>
  );
}

function Fields({ step, form }: { step: BuildStep; form: ReturnType<typeof useEntryForm> }) {
  return (
    <Flex gap="2" mt="3" wrap="wrap" align="flex-end">
      {step.what && (
        <Box as="label" fontSize="sm" flex={{ base: "1 1 100%", md: "1 1 220px" }}>
          {`${step.what}, ${step.measured_in}`}
          <Input
            h="48px"
            fontSize="20px"
            inputMode="decimal"
            value={form.value}
            onChange={(event) => form.put({ value: event.target.value })}
            data-value-field
          />
        </Box>
      )}
      <Box as="label" fontSize="sm" w="104px">
        minutes taken
        <Input
          h="48px"
          inputMode="numeric"
          placeholder={String(Math.round(step.minutes))}
          value={form.minutes}
          aria-invalid={form.wrong || undefined}
          onChange={(event) => form.put({ minutes: event.target.value })}
        />
      </Box>
      <Box as="label" fontSize="sm" flex="1 1 160px">
        note
        <Input
          h="48px"
          fontFamily="body"
          value={form.note}
          onChange={(event) => form.put({ note: event.target.value })}
        />
      </Box>
      {form.wrong && (
        <Box
          role="alert"
          color="brick"
          fontSize="sm"
          w="100%"
        >{`“${form.minutes}” given, give minutes, such as 20`}</Box>
      )}
    </Flex>
  );
}

interface BecauseProps {
  words: string;
  onSay: (reason: string) => void;
  onCancel: () => void;
}

function Because({ words, onSay, onCancel }: BecauseProps) {
  const [reason, setReason] = useState("");
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim()) onSay(reason.trim());
      }}
    >
      <Flex gap="2" mt="2" align="flex-end" wrap="wrap" data-because>
        <Box as="label" fontSize="sm" flex="1 1 200px">
          {words}
          <Input
            h="48px"
            fontFamily="body"
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            onKeyDown={(event) => event.key === "Escape" && onCancel()}
            ref={(field) => field?.focus()}
          />
        </Box>
        <Button type="submit" minH="48px" variant="solid" disabled={!reason.trim()}>
          Keep
        </Button>
        <Button minH="48px" onClick={onCancel}>
          Cancel
        </Button>
      </Flex>
    </form>
  );
}
