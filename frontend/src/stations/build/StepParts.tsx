import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useState } from "react";
import type { BuildStep } from "../../api/client";
import { useFigures } from "../../document/context";
import { MiniLine } from "../../drawing/MiniLine";
import { moment } from "../../ui/when";
import type { EntryForm } from "./useEntryForm";
import { minutes } from "./words";

/** Who said what of it, and when. */
export function Said({ step }: { step: BuildStep }) {
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
export function Drawing({ step }: { step: BuildStep }) {
  const { live } = useFigures();
  const touched = (path: string, member: string) =>
    step.marks.some((mark) => mark.path === path && mark.member === member);
  if (step.marks.length === 0) return null;
  return (
    <Box maxW="420px" mt="2" data-drawing>
      <MiniLine line={live.view.line} name={step.title} marked={touched} />
    </Box>
  );
}

/** What is measured, how long it took, and a note. */
export function Fields({ step, form }: { step: BuildStep; form: EntryForm }) {
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

/** Why, before it is kept. */
export function Because({ words, onSay, onCancel }: BecauseProps) {
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
