import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate, useParams } from "react-router";
import { answer, api, type ExerciseSet, troubleText } from "../../api/client";
import { AskAgain } from "../../ui/AskAgain";
import { DownloadLink } from "../../ui/DownloadLink";
import { TopBar } from "../../ui/frame/TopBar";
import { Unavailable } from "../../ui/frame/Unavailable";
import { useTitle } from "../../ui/frame/useTitle";
import { StandingMark } from "../../ui/StandingMark";
import { counted } from "../../words/counted";

const LOOK_MS = 2000;

/** A set, live: the code to join by, how far each is, and which mistakes are made. */
export default function SetScreen() {
  const { set = "" } = useParams();
  const params = { params: { path: { which: set } } };
  const query = useQuery({
    queryKey: ["set", set],
    queryFn: () => answer(api.GET("/api/sets/{which}/", params)),
    refetchInterval: LOOK_MS,
  });
  useTitle(query.data?.name ?? "Class");
  if (!query.data && query.failureReason)
    return (
      <Unavailable error={query.failureReason} title="There is no such set">
        It is not there, or it belongs to a workshop of others.
      </Unavailable>
    );
  return (
    <>
      <TopBar />
      <Box as="main" maxW="1180px" mx="auto" px="4" py="4">
        {query.data && <Live set={query.data} />}
      </Box>
    </>
  );
}

function Live({ set }: { set: ExerciseSet }) {
  return (
    <>
      <Flex gap="6" wrap="wrap" align="flex-end" mb="4">
        <Box>
          <Box fontSize="sm" color="ink.second">
            to join: {window.location.host}/class
          </Box>
          <Box
            fontFamily="mono"
            fontWeight="700"
            fontSize={{ base: "44px", md: "64px" }}
            lineHeight="1.05"
            letterSpacing="0.08em"
            data-code
          >
            {set.code}
          </Box>
        </Box>
        <Box flex="1" minW="12rem">
          <Heading as="h1" size="lg">
            {set.name}
          </Heading>
          <Box color="ink.second">
            {counted(set.exercises.length, "exercise")}, {set.pupils.length} joined,{" "}
            {set.own_numbers ? "each their own numbers" : "the same numbers for all"}
          </Box>
        </Box>
        <Flex gap="2" data-screen-only>
          <Button asChild>
            <DownloadLink href={`/api/sets/${set.id}/sheet/`}>Sheet with answers</DownloadLink>
          </Button>
          <Button onClick={() => window.print()}>Print</Button>
        </Flex>
      </Flex>
      <Box display="grid" gridTemplateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 320px" }} gap="6">
        <PupilTable set={set} />
        <Mistakes set={set} />
      </Box>
      <ExerciseList set={set} />
      <Forgetting set={set} />
    </>
  );
}

function PupilTable({ set }: { set: ExerciseSet }) {
  if (set.pupils.length === 0)
    return (
      <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p="4" color="ink.second">
        Nobody has joined yet. Who does appears here by themselves.
      </Box>
    );
  return (
    <Box
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="3px"
      p="3"
      overflowX="auto"
      data-pupils
    >
      <table className="working">
        <thead>
          <tr>
            <th scope="col">pupil</th>
            <td>right</td>
            {set.exercises.map((exercise) => (
              <td key={exercise.place}>{exercise.place + 1}</td>
            ))}
          </tr>
        </thead>
        <tbody>
          {set.pupils.map((pupil) => (
            <tr key={pupil.nickname} data-pupil={pupil.nickname}>
              <th scope="row">{pupil.nickname}</th>
              <td>{pupil.right}</td>
              {pupil.done.map((state, place) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: an exercise is its place in the set
                <td key={place} title={state || "not tried"} data-state={state}>
                  <StandingMark
                    standing={state === "right" ? "holds" : state ? "misses" : "unknown"}
                    size={13}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}

function Mistakes({ set }: { set: ExerciseSet }) {
  return (
    <Box as="section" data-mistakes>
      <Heading as="h2" size="md" mb="1">
        Mistakes made
      </Heading>
      {set.mistakes.length === 0 && <Box color="ink.second">None yet.</Box>}
      {set.mistakes.map((mistake) => (
        <Flex key={mistake.name} gap="3" py="1" borderTopWidth="1px" borderColor="line">
          <Box fontFamily="mono" fontWeight="700" minW="2em" textAlign="right">
            {mistake.count}
          </Box>
          <Box>{mistake.name || "none of the usual ones"}</Box>
        </Flex>
      ))}
    </Box>
  );
}

function ExerciseList({ set }: { set: ExerciseSet }) {
  return (
    <Box as="section" mt="6" data-set-exercises>
      <Heading as="h2" size="md" mb="1">
        Exercises
      </Heading>
      {set.exercises.map((exercise) => (
        <Flex
          key={exercise.place}
          gap="3"
          py="2"
          borderTopWidth="1px"
          borderColor="line"
          wrap="wrap"
          align="baseline"
        >
          <Box fontFamily="mono" minW="1.5em">
            {exercise.place + 1}
          </Box>
          <Box flex="1" minW="16rem">
            <Box fontSize="sm" color="ink.second">
              {exercise.idea}, level {exercise.level}
              {exercise.mistakes.length > 0 &&
                `: ${exercise.mistakes.map((m) => `${m.count} × ${m.name || "none of the usual"}`).join(", ")}`}
            </Box>
            {exercise.words}
          </Box>
          <Box fontFamily="mono" color="ink.second">
            {exercise.tried > 0 ? `${exercise.right} of ${exercise.tried} right` : "nobody yet"}
          </Box>
          <Box asChild data-screen-only textDecoration="underline" color="spruce">
            <Link to={`/sets/${set.id}/wall/${exercise.place + 1}`}>On the wall</Link>
          </Box>
        </Flex>
      ))}
    </Box>
  );
}

/** Both ask once more, for neither can be undone. */
function Forgetting({ set }: { set: ExerciseSet }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const params = { params: { path: { which: set.id } } };
  const forget = useMutation({
    mutationFn: () => answer(api.DELETE("/api/sets/{which}/pupils/", params)),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["set", set.id] }),
  });
  const remove = useMutation({
    mutationFn: () => answer(api.DELETE("/api/sets/{which}/", params)),
    onSuccess: () => navigate("/"),
  });
  const trouble = forget.error ?? remove.error;
  return (
    <Flex mt="6" gap="2" wrap="wrap" align="center" data-screen-only>
      <AskAgain
        ask="Forget all pupils"
        sure={`Yes: ${counted(set.pupils.length, "pupil")} and all answers go for good`}
        disabled={set.pupils.length === 0}
        loading={forget.isPending}
        onSure={() => forget.mutate()}
      />
      <AskAgain
        ask="Delete this set"
        sure="Yes: the set goes for good, with all pupils and answers"
        loading={remove.isPending}
        onSure={() => remove.mutate()}
      />
      <Box fontSize="sm" color="ink.second">
        After 90 days pupils are forgotten by themselves.
      </Box>
      {trouble && (
        <Box role="alert" color="brick" w="100%">
          {troubleText(trouble)}
        </Box>
      )}
    </Flex>
  );
}
