import { Box, Button, Flex, Heading, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, type Pupils, RefusedError, troubleText } from "../../api/client";
import { AskAgain } from "../../ui/AskAgain";
import { TopBar } from "../../ui/frame/TopBar";
import { useTitle } from "../../ui/frame/useTitle";
import { StandingMark } from "../../ui/StandingMark";
import { Entry } from "../account/SignIn";
import { ExerciseView } from "../practice/ExerciseView";

/** A pupil's page: joining by a code, then one exercise after the other. */
export default function ClassScreen() {
  useTitle("Class");
  const queries = useQueryClient();
  const mine = useQuery({
    queryKey: ["class"],
    queryFn: async () => {
      const { data, response } = await api.GET("/api/class/");
      return response.status === 200 ? (data ?? null) : null;
    },
  });
  const set = (made: Pupils | null) => queries.setQueryData(["class"], made);
  return (
    <>
      <TopBar />
      <Box as="main" maxW="46rem" mx="auto" px="4" py="4">
        {mine.isError && <Box role="alert">{troubleText(mine.error)}</Box>}
        {mine.isSuccess && (mine.data ? <Joined mine={mine.data} onChange={set} /> : <Join onJoined={set} />)}
      </Box>
    </>
  );
}

function Join({ onJoined }: { onJoined: (mine: Pupils) => void }) {
  const [code, setCode] = useState("");
  const [nickname, setNickname] = useState("");
  const join = useMutation({
    mutationFn: () => answer(api.POST("/api/class/joining/", { body: { code, nickname } })),
    onSuccess: onJoined,
  });
  const faults = join.error instanceof RefusedError ? (join.error.refusal.fields ?? {}) : {};
  const submit = (event: FormEvent) => {
    event.preventDefault();
    join.mutate();
  };
  return (
    <Box maxW="22rem" mx="auto" mt="6">
      <Heading as="h1" size="xl" mb="3">
        Join a class
      </Heading>
      <form onSubmit={submit}>
        <Entry
          label="Code, six letters"
          value={code}
          onChange={(text) => setCode(text.toUpperCase())}
          complaint={faults.code}
          autoComplete="off"
        />
        <Entry
          label="First name or nickname"
          value={nickname}
          onChange={setNickname}
          complaint={faults.nickname}
          autoComplete="off"
        />
        {join.error && Object.keys(faults).length === 0 && (
          <Text role="alert" color="brick" fontSize="sm" mb="2">
            {troubleText(join.error)}
          </Text>
        )}
        <Button type="submit" size="lg" variant="solid" loading={join.isPending}>
          Join
        </Button>
      </form>
      <Text fontSize="sm" color="ink.second" mt="4">
        Your teacher sees this name and your answers. They are deleted with the exercises, at the latest after
        90 days. Nobody asks for an e-mail address.
      </Text>
    </Box>
  );
}

function Joined({ mine, onChange }: { mine: Pupils; onChange: (mine: Pupils | null) => void }) {
  const open = mine.exercises.find((exercise) => !exercise.right)?.place ?? 0;
  const [place, setPlace] = useState(open);
  const leave = useMutation({
    mutationFn: () => answer(api.DELETE("/api/class/") as Promise<never>),
    onSuccess: () => onChange(null),
  });
  const done = mine.exercises.filter((exercise) => exercise.right).length;
  const refresh = async () => onChange(await answer(api.GET("/api/class/")));
  const next = mine.exercises.find((exercise) => !exercise.right && exercise.place !== place)?.place;
  return (
    <>
      <Flex align="baseline" gap="3" wrap="wrap">
        <Heading as="h1" size="lg">
          {mine.name}
        </Heading>
        <Box color="ink.second">{mine.nickname}</Box>
        <Box ml="auto" fontFamily="mono" data-done>
          {done} of {mine.exercises.length}
        </Box>
      </Flex>
      <Flex as="nav" aria-label="Exercises" gap="1" wrap="wrap" my="2">
        {mine.exercises.map((exercise) => (
          <Button
            key={exercise.place}
            size="sm"
            variant={exercise.place === place ? "solid" : "outline"}
            aria-current={exercise.place === place ? "true" : undefined}
            aria-label={`Exercise ${exercise.place + 1}, ${exercise.right ? "right" : exercise.tried ? "tried" : "new"}`}
            onClick={() => setPlace(exercise.place)}
            data-place={exercise.place}
          >
            {exercise.place !== place && (
              <StandingMark
                standing={exercise.right ? "holds" : exercise.tried ? "tight" : "unknown"}
                size={11}
              />
            )}
            {exercise.place + 1}
          </Button>
        ))}
      </Flex>
      <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p={{ base: "3", md: "5" }}>
        <One
          key={place}
          place={place}
          onOver={() => void refresh()}
          after={
            next === undefined ? (
              <Box fontSize="lg" color="spruce">
                That was the last one.
              </Box>
            ) : (
              <Button size="lg" variant="solid" autoFocus onClick={() => setPlace(next)} data-next>
                Next
              </Button>
            )
          }
        />
      </Box>
      <Flex mt="4" gap="3" fontSize="sm" color="ink.second" align="center" wrap="wrap">
        <Box flex="1">Your answers are deleted with the exercises, at the latest after 90 days.</Box>
        <AskAgain
          size="xs"
          ask="Leave on this device"
          sure="Yes: leave; to come back takes another name"
          onSure={() => leave.mutate()}
        />
      </Flex>
    </>
  );
}

interface OneProps {
  place: number;
  onOver: () => void;
  after: React.ReactNode;
}

function One({ place, onOver, after }: OneProps) {
  const path = { params: { path: { place } } };
  const exercise = useQuery({
    queryKey: ["class exercise", place],
    queryFn: () => answer(api.GET("/api/class/exercises/{place}/", path)),
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (exercise.isError) return <Box role="alert">{troubleText(exercise.error)}</Box>;
  if (!exercise.data) return <Box role="status" aria-label="Loading" minH="400px" />;
  return (
    <ExerciseView
      exercise={exercise.data}
      judge={(given) =>
        answer(api.POST("/api/class/exercises/{place}/", { ...path, body: { answer: given } }))
      }
      onOver={onOver}
      after={after}
    />
  );
}
