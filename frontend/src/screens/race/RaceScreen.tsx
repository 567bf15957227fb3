import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { answer, api, type Race } from "../../api/client";
import { show, useUnits } from "../../ui/fields/units";
import { TopBar } from "../../ui/frame/TopBar";
import { Unavailable } from "../../ui/frame/Unavailable";
import { useTitle } from "../../ui/frame/useTitle";
import { counted } from "../../words/counted";
import { type Board, boardOf, heatWords, MODES, striking } from "./board";
import { NextHeat } from "./NextHeat";
import { Teams } from "./Teams";
import { type BoardHeld, useBoard } from "./useBoard";

const LOOK_MS = 5000;

/** A race board: who runs next, large; how everybody stands, with what was predicted; and what teams have changed. */
export default function RaceScreen() {
  const { race = "" } = useParams();
  const params = { params: { path: { race } } };
  const query = useQuery({
    queryKey: ["race", race],
    queryFn: () => answer(api.GET("/api/races/{race}/", params)),
    refetchInterval: LOOK_MS,
  });
  useTitle(query.data ? boardOf(query.data.document).name : "Race");
  if (!query.data && query.failureReason)
    return (
      <Unavailable error={query.failureReason} title="There is no such race">
        It is not there, or it belongs to a workshop of others.
      </Unavailable>
    );
  return (
    <>
      <TopBar />
      <Box as="main" maxW="1180px" mx="auto" px="4" py="4">
        {query.data && <Running race={query.data} />}
      </Box>
    </>
  );
}

function Running({ race }: { race: Race }) {
  const { board, change, undo, trouble } = useBoard(race);
  return (
    <>
      <Flex gap="3" align="baseline" wrap="wrap" mb="3">
        <Heading as="h1" size="xl">
          {board.name}
        </Heading>
        <Box color="ink.second">
          {board.distance}, {counted(board.lanes, "lane")}, {MODES[board.mode]}
        </Box>
        <Flex ml="auto" gap="2" data-screen-only>
          <Button size="sm" disabled={undo === null} onClick={() => undo?.()}>
            Undo
          </Button>
          <Button size="sm" onClick={() => window.print()}>
            Print
          </Button>
        </Flex>
      </Flex>
      {trouble && (
        <Box role="alert" color="brick" mb="2">
          {trouble}
        </Box>
      )}
      <NextHeat race={race} board={board} onChange={change} />
      <Box
        display="grid"
        gridTemplateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,3fr) minmax(0,2fr)" }}
        gap="6"
      >
        <Standings race={race} board={board} />
        <Heats race={race} board={board} onChange={change} />
      </Box>
      <Log race={race} />
      <Teams race={race} board={board} onChange={change} />
    </>
  );
}

function useTime() {
  const units = useUnits();
  return (si: number | null | undefined) =>
    si === null || si === undefined ? "–" : Object.values(show(units, "time", si)).join(" ");
}

function Standings({ race, board }: { race: Race; board: Board }) {
  const time = useTime();
  const entries = new Map(race.entries.map((entry) => [entry.id, entry]));
  if (race.entries.length === 0) return <Box color="ink.second">No team yet: enter them below.</Box>;
  return (
    <Box overflowX="auto" data-standings>
      <table className="working">
        <thead>
          <tr>
            <td>place</td>
            <th scope="col">team</th>
            <td>predicted</td>
            <td>best</td>
            <td>mean</td>
            <td>heats</td>
            <td>won</td>
          </tr>
        </thead>
        <tbody>
          {race.standings.map((row) => (
            <Box asChild key={row.entry} color={row.out ? "ink.second" : undefined}>
              <tr data-team={row.entry}>
                <td>{row.place}</td>
                <th scope="row">
                  <Box as="span" fontWeight={row.out ? 400 : 700}>
                    {entries.get(row.entry)?.name}
                  </Box>
                  {row.out && (
                    <Box as="span" color="ink.second">
                      {" "}
                      out
                    </Box>
                  )}
                  <Box as="span" color="ink.second">
                    {" "}
                    {entries.get(row.entry)?.vehicle_name}
                  </Box>
                </th>
                <td>{time(entries.get(row.entry)?.predicted)}</td>
                <td>{time(row.best)}</td>
                <td>{time(row.mean)}</td>
                <td>{row.runs}</td>
                <td>{row.wins}</td>
              </tr>
            </Box>
          ))}
        </tbody>
      </table>
      {board.mode === "knockout" && race.next === null && board.heats.length > 0 && (
        <Box mt="3" fontSize="22px" fontWeight="700" color="spruce" data-champion>
          {entries.get(race.standings[0]?.entry ?? "")?.name} has won.
        </Box>
      )}
    </Box>
  );
}

interface HeatsProps {
  race: Race;
  board: Board;
  onChange: BoardHeld["change"];
}

function Heats({ race, board, onChange }: HeatsProps) {
  const names = new Map(race.entries.map((entry) => [entry.id, entry.name]));
  return (
    <Box as="section" data-heats>
      <Heading as="h2" size="md" mb="1">
        Heats
      </Heading>
      {board.heats.length === 0 && <Box color="ink.second">None yet.</Box>}
      {board.heats
        .map((heat, place) => ({ heat, place }))
        .reverse()
        .map(({ heat, place }) => (
          <Flex
            key={place}
            gap="3"
            py="1"
            borderTopWidth="1px"
            borderColor="line"
            align="baseline"
            wrap="wrap"
          >
            <Box color="ink.second" fontFamily="mono" minW="2em">
              {place + 1}
            </Box>
            <Box flex="1">{heatWords(heat, names)}</Box>
            <Button
              size="xs"
              variant="ghost"
              data-screen-only
              onClick={() => void onChange(striking(heat, place, names))}
            >
              Take it out
            </Button>
          </Flex>
        ))}
    </Box>
  );
}

/** What each team changed between its starts. */
function Log({ race }: { race: Race }) {
  const matching = race.entries.filter((entry) => entry.log.length > 0);
  if (matching.length === 0) return null;
  return (
    <Box as="section" mt="6" data-log>
      <Heading as="h2" size="md" mb="1">
        What was changed between starts
      </Heading>
      {matching.map((entry) =>
        entry.log.map((step) => (
          <Flex key={`${entry.id} ${step.after}`} gap="3" py="1" borderTopWidth="1px" borderColor="line">
            <Box fontWeight="600" minW="8rem">
              {entry.name}
            </Box>
            <Box color="ink.second" minW="7rem">
              heat {step.before} to {step.after}
            </Box>
            <Box>{step.changes.join(", ") || "nothing that shows"}</Box>
          </Flex>
        )),
      )}
    </Box>
  );
}
