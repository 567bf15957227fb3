import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useParams } from "react-router";
import { answer, api, troubleText } from "../../api/client";
import { WorkingSheet } from "../../document/working/WorkingSheet";
import { Unavailable } from "../../ui/frame/Unavailable";
import { useTitle } from "../../ui/frame/useTitle";
import { Picture } from "../practice/Picture";

/** As large as the exercise above it. */
const FROM_THE_BACK_ROW = { zoom: { base: 1, md: 1.6 } };

/** One exercise of a set, large, for the wall: no names, and the answer only when it is asked for. */
export default function WallScreen() {
  const { set = "", place = "1" } = useParams();
  const number = Number(place);
  const navigate = useNavigate();
  const params = { params: { path: { which: set, place: number - 1 } } };
  useTitle(`Exercise ${number}`);
  const exercise = useQuery({
    queryKey: ["wall", set, number],
    queryFn: () => answer(api.GET("/api/sets/{which}/wall/{place}/", params)),
  });
  const count = useQuery({
    queryKey: ["set", set],
    queryFn: () => answer(api.GET("/api/sets/{which}/", { params: { path: { which: set } } })),
  }).data?.exercises.length;
  const solve = useMutation({
    mutationFn: () => answer(api.POST("/api/sets/{which}/wall/{place}/", params)),
  });
  const go = (by: number) => {
    solve.reset();
    navigate(`/sets/${set}/wall/${number + by}`, { replace: true });
  };
  if (!exercise.data && exercise.failureReason)
    return (
      <Unavailable error={exercise.failureReason} title="There is no such exercise">
        It is not there, or it belongs to a workshop of others.
      </Unavailable>
    );
  const shown = exercise.data;
  return (
    <Box as="main" maxW="1400px" mx="auto" p="6" data-wall>
      <Flex gap="2" mb="4" align="center" wrap="wrap">
        <Box asChild textDecoration="underline" color="spruce">
          <Link to={`/sets/${set}`}>Back to the set</Link>
        </Box>
        <Box flex="1" />
        <Button disabled={number <= 1} onClick={() => go(-1)}>
          Before
        </Button>
        <Button disabled={number === count} onClick={() => go(1)}>
          Next
        </Button>
        <Button
          variant="solid"
          disabled={Boolean(solve.data)}
          loading={solve.isPending}
          onClick={() => solve.mutate()}
        >
          Show the answer
        </Button>
      </Flex>
      {solve.error && (
        <Box role="alert" color="brick">
          {troubleText(solve.error)}
        </Box>
      )}
      {shown && (
        <>
          <Box fontSize="20px" color="ink.second">
            {number}. {shown.idea}
          </Box>
          <Heading as="h1" fontSize={{ base: "26px", md: "38px" }} lineHeight="1.3" fontWeight="600">
            {shown.words}
          </Heading>
          <Picture
            exercise={shown}
            solved={solve.data ?? null}
            chosen={solve.data ? [solve.data.key] : []}
            onChoose={null}
          />
          <Flex gap="6" wrap="wrap" fontSize="24px" mt="3">
            {shown.ask.choices.map((choice, i) => (
              <Box key={choice.key}>
                <Box as="span" fontFamily="mono" color="ink.second">
                  {i + 1}{" "}
                </Box>
                {choice.words}
              </Box>
            ))}
          </Flex>
        </>
      )}
      {solve.data && (
        <Box mt="4" pt="4" borderTopWidth="1px" borderColor="line" css={FROM_THE_BACK_ROW} data-solved>
          <Heading as="h2" fontSize="lg" color="ink.second" fontWeight="400">
            The answer
          </Heading>
          <WorkingSheet working={solve.data.working} title={`Exercise ${number}`} told={solve.data.words} />
        </Box>
      )}
    </Box>
  );
}
