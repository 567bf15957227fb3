import { Box, Button, Flex, Heading, Input } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { type FormEvent, useId, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answer, api, troubleText } from "../../api/client";
import { FieldLabel } from "../../ui/fields/FieldLabel";
import { completed, useUnits } from "../../ui/fields/units";
import { TopBar } from "../../ui/frame/TopBar";
import { Unavailable } from "../../ui/frame/Unavailable";
import { useTitle } from "../../ui/frame/useTitle";
import { day } from "../../ui/when";
import { counted } from "../../words/counted";
import { type Board, MODES } from "./board";

/** Race boards of a workshop, and a new one. */
export default function RacesScreen() {
  const { workshop = "" } = useParams();
  useTitle("Races");
  const races = useQuery({
    queryKey: ["races", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/races/", { params: { path: { workshop } } })),
  });
  if (!races.data && races.failureReason)
    return (
      <Unavailable error={races.failureReason} title="No races here">
        The workshop is not there, or you are not a member of it.
      </Unavailable>
    );
  return (
    <>
      <TopBar workshop={workshop} />
      <Box as="main" maxW="46rem" mx="auto" px="4" py="4">
        <Heading as="h1" size="xl" mb="3">
          Races
        </Heading>
        {races.data?.map((race) => (
          <Flex
            key={race.id}
            gap="3"
            py="2"
            borderTopWidth="1px"
            borderColor="line"
            align="baseline"
            wrap="wrap"
          >
            <Box asChild flex="1" fontWeight="600" textDecoration="underline">
              <Link to={`/races/${race.id}`}>{race.name}</Link>
            </Box>
            <Box color="ink.second" fontSize="sm">
              {counted(race.entries, "team")}, {counted(race.heats, "heat")}, {day(race.made_at)}
            </Box>
          </Flex>
        ))}
        <NewRace workshop={workshop} />
      </Box>
    </>
  );
}

function NewRace({ workshop }: { workshop: string }) {
  const units = useUnits();
  const navigate = useNavigate();
  const id = useId();
  const [name, setName] = useState("");
  const [distance, setDistance] = useState("12 m");
  const [lanes, setLanes] = useState("2");
  const [mode, setMode] = useState<Board["mode"]>("knockout");
  const make = useMutation({
    mutationFn: () => {
      const document: Board = {
        format: "ydrometer-race",
        version: 1,
        name: name.trim() || "Race",
        distance: completed(units, "distance", distance),
        lanes: Number(lanes),
        mode,
        entries: [],
        heats: [],
      };
      return answer(
        api.POST("/api/workshops/{workshop}/races/", {
          params: { path: { workshop } },
          body: { document: document as unknown as Record<string, unknown> },
        }),
      );
    },
    onSuccess: (created) => navigate(`/races/${created.id}`),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    make.mutate();
  };
  return (
    <Box
      as="form"
      onSubmit={submit}
      mt="5"
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="3px"
      p="4"
    >
      <Heading as="h2" size="md" mb="3">
        A new race
      </Heading>
      <Flex gap="4" wrap="wrap" align="flex-end">
        <Box flex="1" minW="12rem">
          <FieldLabel id={`${id}-name`}>Name</FieldLabel>
          <Input
            id={`${id}-name`}
            value={name}
            placeholder="Race"
            onChange={(e) => setName(e.target.value)}
          />
        </Box>
        <Box w="8rem">
          <FieldLabel id={`${id}-distance`}>Distance</FieldLabel>
          <Input id={`${id}-distance`} value={distance} onChange={(e) => setDistance(e.target.value)} />
        </Box>
        <Box w="5rem">
          <FieldLabel id={`${id}-lanes`}>Lanes</FieldLabel>
          <Input
            id={`${id}-lanes`}
            type="number"
            min={mode === "knockout" ? 2 : 1}
            max={8}
            value={lanes}
            onChange={(e) => setLanes(e.target.value)}
          />
        </Box>
        <select
          className="plain"
          aria-label="How it is run"
          value={mode}
          onChange={(e) => setMode(e.target.value as Board["mode"])}
        >
          {Object.entries(MODES).map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
        <Button type="submit" variant="solid" size="lg" loading={make.isPending}>
          Make the board
        </Button>
      </Flex>
      {make.isError && (
        <Box role="alert" color="brick" mt="2">
          {troubleText(make.error)}
        </Box>
      )}
    </Box>
  );
}
