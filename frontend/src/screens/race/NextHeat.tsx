import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { type FormEvent, useState } from "react";
import type { Race } from "../../api/client";
import { completed, show, useUnits } from "../../ui/fields/units";
import { type Board, running } from "./board";
import type { BoardHeld } from "./useBoard";

interface Props {
  race: Race;
  board: Board;
  onChange: BoardHeld["change"];
}

/** Who runs next, large enough for the whole room, with a place for each time. */
export function NextHeat({ race, board, onChange }: Props) {
  const { next } = race;
  if (!next) return null;
  return <Start key={`${nextOf(race)} ${board.heats.length}`} next={next} {...{ race, board, onChange }} />;
}

const nextOf = ({ next }: Race) => next && `${next.round} ${next.entries.join(" ")}`;

function Start({ race, board, onChange, next }: Props & { next: NonNullable<Race["next"]> }) {
  const units = useUnits();
  const [times, setTimes] = useState<string[]>(next.entries.map(() => ""));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const typed = times.map((text) => (text.trim() ? completed(units, "time", text) : null));
    const names = new Map(race.entries.map((entry) => [entry.id, entry.name]));
    const heat = { round: next.round, entries: next.entries, times: typed };
    void onChange(running(heat, names), (theirs) => nextOf(theirs) === nextOf(race));
  };
  const set = (lane: number, text: string) => setTimes(times.map((old, i) => (i === lane ? text : old)));
  return (
    <Box
      as="form"
      onSubmit={submit}
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="3px"
      p="4"
      mb="5"
      data-next-heat
    >
      <Box color="ink.second">
        Next, {board.mode === "knockout" ? `round ${next.round}` : `heat ${board.heats.length + 1}`}
      </Box>
      <Flex gap={{ base: "4", md: "8" }} wrap="wrap" my="2">
        {next.entries.map((id, lane) => {
          const entry = race.entries.find((entry) => entry.id === id);
          const told = (si: number) => Object.values(show(units, "time", si)).join(" ");
          return (
            <Box key={id} flex="1" minW="14rem" data-lane={lane + 1}>
              <Box color="ink.second">lane {lane + 1}</Box>
              <Box
                fontSize={{ base: "34px", md: "52px" }}
                fontWeight="700"
                lineHeight="1.1"
                overflowWrap="anywhere"
              >
                {entry?.name}
              </Box>
              <Box color="ink.second" minH="1.5em">
                {entry?.predicted ? `predicted ${told(entry.predicted)}` : entry?.vehicle_name}
              </Box>
              <Flex gap="2" align="center" mt="1" data-screen-only>
                <Input
                  size="lg"
                  w="9rem"
                  fontFamily="mono"
                  fontSize="22px"
                  inputMode="decimal"
                  aria-label={`Time of ${entry?.name}, empty if it did not finish`}
                  value={times[lane]}
                  onChange={(event) => set(lane, event.target.value)}
                />
                <Box color="ink.second">s</Box>
                {entry?.last_run && (
                  <Button size="sm" onClick={() => set(lane, told(entry.last_run ?? 0))}>
                    last run, {told(entry.last_run)}
                  </Button>
                )}
              </Flex>
            </Box>
          );
        })}
      </Flex>
      <Button
        type="submit"
        size="lg"
        variant="solid"
        disabled={times.every((text) => !text.trim())}
        data-screen-only
      >
        Write it down
      </Button>
    </Box>
  );
}
