import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { answer, api, type Idea, type Practice, troubleText, type Went, type Which } from "../../api/client";
import { useSession } from "../../api/session";
import { useWorkshopAtHand } from "../../api/workshops";
import { keysOf, useCommands } from "../../ui/commands/commands";
import { TopBar, useBar } from "../../ui/frame/TopBar";
import { useTitle } from "../../ui/frame/useTitle";
import { ExerciseView } from "./ExerciseView";
import { IdeaMap } from "./IdeaMap";
import { anotherKind, following, newSeed } from "./went";

/** Exercises for one person: one at a time, the map of ideas beside it. */
export default function PracticeScreen() {
  useTitle("Practice");
  const queries = useQueryClient();
  const map = useQuery({ queryKey: ["practice"], queryFn: () => answer(api.GET("/api/practice/")) });
  const keep = (made: Practice) => queries.setQueryData(["practice"], made);
  return (
    <>
      <TopBar />
      <Box as="main" maxW="1180px" mx="auto" px="4" py="4">
        {map.isError && <Box role="alert">{troubleText(map.error)}</Box>}
        {map.data && <Practising map={map.data} onMap={keep} />}
      </Box>
    </>
  );
}

const KEYS = keysOf("Practice", [
  ["1, 2, 3 …", "Choose an answer"],
  ["Enter", "Check it; then on to the next"],
]);

function Practising({ map, onMap }: { map: Practice; onMap: (map: Practice) => void }) {
  const [search, setSearch] = useSearchParams();
  useCommands(KEYS);
  const session = useSession().data;
  const kept = Boolean(session?.username) && !session?.visitor;
  const wanted = search.get("idea") ?? map.next;
  const [current, setCurrent] = useState(map.ideas.some((idea) => idea.idea === wanted) ? wanted : map.next);
  const [which, setWhich] = useState(() => of(map.ideas, current, ""));
  const [went, setWent] = useState<Went | null>(null);
  const go = (idea: string) => {
    setCurrent(idea);
    setWent(null);
    setWhich(of(map.ideas, idea, which.kind));
    setSearch(idea === map.next ? {} : { idea }, { replace: true });
  };
  const again = () => {
    setWent(null);
    setWhich({ ...which, seed: newSeed() });
  };
  const next = kept ? map.next : following(map.ideas, current, went);
  return (
    <Box display="grid" gridTemplateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 250px" }} gap="6">
      <Box>
        <Flex align="baseline" gap="3" wrap="wrap" mb="2">
          <Heading as="h1" size="lg">
            Practice
          </Heading>
          <Levels
            level={which.level}
            onLevel={(level) => {
              setWent(null);
              setWhich({ ...which, level, seed: newSeed() });
            }}
          />
          <Box fontSize="sm" color="ink.second" ml="auto">
            {kept ? "" : "Nothing of this is kept."}
          </Box>
        </Flex>
        <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p={{ base: "3", md: "5" }}>
          <One
            key={`${which.kind} ${which.level} ${which.seed}`}
            which={which}
            onOver={setWent}
            onMap={onMap}
            next={next}
            onNext={() => go(next)}
            onAgain={again}
          />
        </Box>
      </Box>
      <IdeaMap ideas={map.ideas} current={current} next={kept ? map.next : ""} onChoose={go} />
    </Box>
  );
}

type Drawn = Omit<Which, "units">;

/** An exercise of an idea at the level that comes next. */
function of(ideas: Idea[], idea: string, last: string): Drawn {
  const match = ideas.find((entry) => entry.idea === idea);
  const kind = anotherKind(match?.kinds ?? [], last) as Which["kind"];
  return { kind, level: match?.level ?? 1, seed: newSeed() };
}

function Levels({ level, onLevel }: { level: number; onLevel: (level: number) => void }) {
  return (
    <Flex gap="1" role="group" aria-label="Level" align="center" fontSize="sm">
      <Box color="ink.second">level</Box>
      {[1, 2, 3].map((entry) => (
        <Button
          key={entry}
          size="xs"
          aria-pressed={entry === level}
          variant={entry === level ? "solid" : "outline"}
          onClick={() => onLevel(entry)}
        >
          {entry}
        </Button>
      ))}
    </Flex>
  );
}

interface OneProps {
  which: Drawn;
  next: string;
  onOver: (went: Went) => void;
  onMap: (map: Practice) => void;
  onNext: () => void;
  onAgain: () => void;
}

/** One exercise, asked for, judged and noted. */
function One({ which, next, onOver, onMap, onNext, onAgain }: OneProps) {
  const { preferences } = useBar();
  const body: Which = { ...which, units: preferences.system };
  const exercise = useQuery({
    queryKey: ["exercise", body],
    queryFn: () => answer(api.POST("/api/practice/exercise/", { body })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const over = async (went: Went) => {
    onOver(went);
    onMap(await answer(api.POST("/api/practice/", { body: { ...body, went } })));
  };
  if (exercise.isError) return <Box role="alert">{troubleText(exercise.error)}</Box>;
  if (!exercise.data) return <Box role="status" aria-label="Loading" minH="420px" />;
  return (
    <ExerciseView
      key={exercise.data.units}
      exercise={exercise.data}
      judge={(given) => answer(api.POST("/api/practice/judge/", { body: { ...body, answer: given } }))}
      solve={() => answer(api.POST("/api/practice/solved/", { body }))}
      onOver={(went) => void over(went)}
      after={
        <>
          <Button size="lg" variant="solid" onClick={onNext} autoFocus data-next>
            Next: {next}
          </Button>
          <Button size="lg" onClick={onAgain}>
            The same with other numbers
          </Button>
          <OpenOnLine body={body} />
        </>
      }
    />
  );
}

/** The exercise as a scratch vehicle on the Line; for those who have a workshop. */
function OpenOnLine({ body }: { body: Which }) {
  const { username } = useBar();
  return username ? (
    <OpenInWorkshop body={body} />
  ) : (
    <Box asChild alignSelf="center" color="spruce" textDecoration="underline">
      <Link to="/">Sign in to open it on the Line</Link>
    </Box>
  );
}

function OpenInWorkshop({ body }: { body: Which }) {
  const { chosen } = useWorkshopAtHand();
  const navigate = useNavigate();
  const open = useMutation({
    mutationFn: (workshop: string) =>
      answer(api.POST("/api/practice/open/", { body: { ...body, workshop } })),
    onSuccess: (created) => navigate(`/vehicles/${created.id}/line`),
  });
  if (!chosen || chosen.role === "viewer") return null;
  return (
    <>
      <Button size="lg" loading={open.isPending} onClick={() => open.mutate(chosen.id)}>
        Open it on the Line
      </Button>
      {open.isError && <Box role="alert">{troubleText(open.error)}</Box>}
    </>
  );
}
