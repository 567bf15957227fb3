import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { type FormEvent, type ReactNode, useCallback, useState } from "react";
import { type Exercise, type Judgement, type Solved, troubleText, type Went } from "../../api/client";
import { WorkingSheet } from "../../document/working/WorkingSheet";
import { StandingMark } from "../../ui/StandingMark";
import { Answers, type Given, isWhole, NOTHING, picking } from "./Answers";
import { keyOf } from "./ExerciseDrawing";
import { Picture } from "./Picture";
import { wentBy } from "./went";

interface Props {
  exercise: Exercise;
  judge: (given: Given) => Promise<Judgement>;
  /** How it comes about; where a class has it to find out, there is none. */
  solve?: () => Promise<Solved>;
  /** It is over: found, or shown. */
  onOver: (went: Went) => void;
  /** What can be done once it is over. */
  after: ReactNode;
}

/** One exercise, large: its words, its line, the place for the answer, and what is said of it. */
export function ExerciseView({ exercise, judge, solve, onOver, after }: Props) {
  const [given, setGiven] = useState<Given>(NOTHING);
  const [said, setSaid] = useState<Judgement | null>(null);
  const [trouble, setTrouble] = useState("");
  const [misses, setMisses] = useState(0);
  const [hints, setHints] = useState(0);
  const [over, setOver] = useState(false);
  const [solved, setSolved] = useState<Solved | null>(null);
  const { ask } = exercise;
  const change = useCallback((to: Given) => {
    setGiven(to);
    setSaid(null);
    setTrouble("");
  }, []);
  const end = async (shown: boolean) => {
    setOver(true);
    onOver(wentBy({ misses, hints, shown }));
    if (solve) setSolved(await solve());
  };
  const check = async () => {
    if (!isWhole(ask, given) || over) return;
    try {
      const reply = await judge(given);
      setSaid(reply);
      setTrouble("");
      if (reply.verdict === "right" || reply.verdict === "rounded early") await end(false);
      else setMisses((old) => old + 1);
    } catch (error) {
      setTrouble(troubleText(error));
    }
  };
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    void check();
  };
  return (
    <Box
      as="form"
      onSubmit={onSubmit}
      data-exercise={exercise.kind}
      data-drawn={`${exercise.level} ${exercise.seed} ${exercise.units}`}
    >
      <Box fontSize="sm" color="ink.second">
        {exercise.idea}, level {exercise.level}
      </Box>
      <Heading as="h2" fontSize={{ base: "18px", md: "21px" }} fontWeight="600" lineHeight="1.35" my="1">
        {exercise.words}
      </Heading>
      <Picture
        exercise={exercise}
        solved={solved}
        chosen={chosenOf(exercise, given)}
        onChoose={over ? null : (key) => change(ask.kind === "picks" ? withPick(exercise, given, key) : key)}
      />
      <Box mt="2">
        <Answers ask={ask} given={given} disabled={over} onChange={change} />
      </Box>
      <Said said={said} trouble={trouble} />
      {!over && (
        <Flex gap="2" mt="3" wrap="wrap">
          <Button type="submit" size="lg" variant="solid" disabled={!isWhole(ask, given)} data-check>
            Check it
          </Button>
          {hints < exercise.hints.length && (
            <Button size="lg" onClick={() => setHints(hints + 1)} data-hint-button>
              {hints === 0 ? "A hint" : "Another hint"}
            </Button>
          )}
          {solve && (
            <Button size="lg" variant="ghost" onClick={() => void end(true)}>
              Show me how
            </Button>
          )}
        </Flex>
      )}
      {hints > 0 && (
        <Box as="ol" pl="5" mt="3" listStyleType="decimal" data-hints>
          {exercise.hints.slice(0, hints).map((hint) => (
            <li key={hint}>{hint}</li>
          ))}
        </Box>
      )}
      {over && (
        <Flex gap="2" mt="3" wrap="wrap">
          {after}
        </Flex>
      )}
      {solved && (
        <Box mt="4" pt="3" borderTopWidth="1px" borderColor="line" data-solved>
          <WorkingSheet working={solved.working} title={exercise.idea} told={solved.words} />
        </Box>
      )}
    </Box>
  );
}

/** What stands out in the drawing by the answer that is given now. */
function chosenOf({ ask, drawing }: Exercise, given: Given): string[] {
  if (ask.kind !== "picks") return [String(given)];
  const picked = Array.isArray(given) ? given : [];
  const wheels = drawing.rows.flatMap((row) => row.wheels);
  return wheels.filter((wheel) => picked.includes(wheel.teeth ?? 0)).map(keyOf);
}

function withPick({ ask, drawing }: Exercise, given: Given, key: string): Given {
  const wheels = drawing.rows.flatMap((row) => row.wheels);
  const teeth = wheels.find((wheel) => keyOf(wheel) === key)?.teeth ?? 0;
  return picking(ask, given, teeth);
}

function Said({ said, trouble }: { said: Judgement | null; trouble: string }) {
  const right = said?.verdict === "right" || said?.verdict === "rounded early";
  return (
    <Box aria-live="polite" minH="28px" mt="2" data-said={said?.verdict}>
      {trouble && (
        <Box role="alert" color="brick">
          {trouble}
        </Box>
      )}
      {said && (
        <Flex gap="2" align="baseline" fontSize="17px" color={right ? "spruce" : "brick"}>
          <StandingMark standing={said.verdict === "right" ? "holds" : right ? "tight" : "misses"} />
          <Box>
            {said.mistake && <b>{said.mistake}: </b>}
            {said.words}
          </Box>
        </Flex>
      )}
    </Box>
  );
}
