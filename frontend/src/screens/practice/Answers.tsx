import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import type { Ask } from "../../api/client";

/** What is given as an answer: a text as typed, the key of a choice or wheel, or picked wheels in their places. */
export type Given = string | number[];

export type Choice = Ask["choices"][number];

export const NOTHING: Given = "";

/** Whether there is enough to be judged. */
export const isWhole = (ask: Ask, given: Given) =>
  Array.isArray(given) ? given.length === ask.places.length : given.trim() !== "";

/** The wheels picked so far with one more, or without one that was picked; no more than there are places. */
export function picking(ask: Ask, given: Given, teeth: number): Given {
  const picked = Array.isArray(given) ? given : [];
  if (picked.includes(teeth)) return picked.filter((one) => one !== teeth);
  return picked.length < ask.places.length ? [...picked, teeth] : picked;
}

interface Props {
  ask: Ask;
  given: Given;
  disabled: boolean;
  onChange: (given: Given) => void;
}

/** The place for the answer, for each way of asking. */
export function Answers(props: Props) {
  switch (props.ask.kind) {
    case "number":
      return <NumberAnswer {...props} />;
    case "picks":
      return <PicksAnswer {...props} />;
    case "wheel":
      return (
        <Box color="ink.second" data-wheel-asked>
          {props.given ? chosenWords(props) : "Choose a wheel in the drawing: click it, or Tab and Enter."}
        </Box>
      );
    default:
      return <ChoiceAnswer {...props} />;
  }
}

const chosenWords = ({ ask, given }: Props) =>
  `Chosen: ${ask.choices.find((choice) => choice.key === given)?.words.split(",")[0]}`;

function NumberAnswer({ ask, given, disabled, onChange }: Props) {
  const ref = useRef<HTMLInputElement>(null);
  useEffect(() => ref.current?.focus(), []);
  return (
    <Flex gap="2" align="center" maxW="22rem">
      <Input
        ref={ref}
        size="lg"
        fontFamily="mono"
        fontSize="24px"
        fontWeight="700"
        inputMode="decimal"
        autoComplete="off"
        aria-label={ask.unit ? `Your answer, in ${ask.unit} or with its unit` : "Your answer"}
        value={typeof given === "string" ? given : ""}
        readOnly={disabled}
        onChange={(event) => onChange(event.target.value)}
        data-answer
      />
      <Box fontSize="lg" color="ink.second" minW="3em">
        {ask.unit}
      </Box>
    </Flex>
  );
}

const ARROWS: Record<string, string> = { clockwise: "↻", anticlockwise: "↺" };

function ChoiceAnswer({ ask, given, disabled, onChange }: Props) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const chosen = ask.choices[Number(event.key) - 1];
      if (!chosen || disabled || event.ctrlKey || event.metaKey || event.altKey) return;
      onChange(chosen.key);
      // Enter then checks it.
      requestAnimationFrame(() => document.querySelector<HTMLElement>("[data-check]")?.focus());
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [ask, disabled, onChange]);
  const arrows = ask.kind === "arrow";
  return (
    <Flex
      direction={arrows ? "row" : "column"}
      wrap={arrows ? "wrap" : "nowrap"}
      gap="2"
      maxW="34rem"
      role="radiogroup"
      aria-label="Your answer"
      data-choices
    >
      {ask.choices.map((choice, i) => (
        <Button
          key={choice.key}
          role="radio"
          aria-checked={given === choice.key}
          variant={given === choice.key ? "solid" : "outline"}
          size="lg"
          h="auto"
          minH="46px"
          py="2"
          whiteSpace="normal"
          textAlign="left"
          justifyContent="flex-start"
          disabled={disabled}
          onClick={() => onChange(choice.key)}
          data-choice={choice.key}
        >
          <Box as="span" fontFamily="mono" opacity="0.7">
            {i + 1}
          </Box>
          {arrows && (
            <Box as="span" fontSize="28px" lineHeight="1" aria-hidden>
              {ARROWS[choice.key]}
            </Box>
          )}
          {choice.words}
        </Button>
      ))}
    </Flex>
  );
}

function PicksAnswer({ ask, given, disabled, onChange }: Props) {
  const picked = Array.isArray(given) ? given : [];
  return (
    <Box data-picks>
      <Flex gap="2" wrap="wrap" role="group" aria-label="The bag">
        {ask.bag.map((teeth) => (
          <Button
            key={teeth}
            size="lg"
            minW="58px"
            fontFamily="mono"
            fontWeight="700"
            variant={picked.includes(teeth) ? "solid" : "outline"}
            aria-pressed={picked.includes(teeth)}
            aria-label={`gear with ${teeth} teeth`}
            disabled={disabled || (picked.length >= ask.places.length && !picked.includes(teeth))}
            onClick={() => onChange(picking(ask, given, teeth))}
            data-pick={teeth}
          >
            {teeth}
          </Button>
        ))}
      </Flex>
      <Flex as="ol" listStyleType="none" p="0" mt="3" gap="4" wrap="wrap">
        {ask.places.map((place, i) => (
          <Box as="li" key={place}>
            <Box fontSize="sm" color="ink.second">
              {place}
            </Box>
            <Box fontFamily="mono" fontSize="24px" fontWeight="700" lineHeight="1.2">
              {picked[i] ?? "–"}
            </Box>
          </Box>
        ))}
      </Flex>
    </Box>
  );
}
