import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import {
  answer,
  api,
  type Fault,
  RefusedError,
  type Start,
  type Starts,
  troubleText,
} from "../../api/client";
import { StartPicture } from "../../drawing/StartPicture";
import { ChoiceField } from "../../ui/fields/ChoiceField";
import { TextField } from "../../ui/fields/TextField";
import { type Answers, answered, faultOf, type Put } from "./answers";
import { Drives } from "./Drives";
import { Goals } from "./Goals";
import { Asked, Question } from "./Question";

interface Props {
  workshop: string;
  start: Start;
  starts: Starts;
}

/** At most six questions in plain words; each may be left as it is. */
export function Questions({ workshop, start, starts }: Props) {
  const navigate = useNavigate();
  const [answers, setAnswers] = useState<Answers>({});
  const put: Put = (part) => setAnswers((old) => ({ ...old, ...part }));
  const begin = useMutation({
    mutationFn: () =>
      answer(
        api.POST("/api/workshops/{workshop}/vehicles/", {
          params: { path: { workshop } },
          body: {
            beginning: {
              start: start.key,
              answers: answered(
                answers,
                start.goals.map((goal) => goal.bound),
              ),
            },
          },
        }),
      ),
    onSuccess: (vehicle) => navigate(`/vehicles/${vehicle.id}/line`),
  });
  const faults: Fault[] =
    begin.error instanceof RefusedError ? ((begin.error.refusal.faults ?? []) as Fault[]) : [];
  return (
    <Box>
      <Flex gap="5" align="flex-start" direction={{ base: "column", md: "row" }}>
        <Box w={{ base: "100%", md: "300px" }} flexShrink={0} position={{ md: "sticky" }} top="2">
          <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p="3">
            <StartPicture picture={start.picture} title={start.title} />
            <Heading as="h1" size="lg" mt="1">
              {start.title}
            </Heading>
            <Box color="ink.second" fontSize="sm">
              {start.words}
            </Box>
          </Box>
          <Box asChild display="inline-block" mt="2" color="spruce" textDecoration="underline" fontSize="sm">
            <Link to={`/workshops/${workshop}/new`}>Another picture</Link>
          </Box>
        </Box>
        <Box
          flex="1"
          minW="0"
          maxW="700px"
          w="100%"
          bg="panel"
          borderWidth="1px"
          borderColor="line"
          borderRadius="3px"
          px="4"
          py="3"
        >
          <Box color="ink.second" mb="2">
            What you leave alone stays typical, is marked as assumed, and can be put right later.
          </Box>
          <Box as="ol" listStyleType="none" p="0" data-questions>
            <Question title="What is it called?">
              <TextField
                label="Name"
                value={answers.name ?? ""}
                placeholder={start.title}
                readOnly={false}
                onChange={(name) => put({ name })}
              />
            </Question>
            <Question title="How heavy is it, everything and everybody on it?">
              <Asked
                label="Mass, all of it"
                dimension="mass"
                typical={start.mass}
                value={answers.mass}
                fault={faultOf(faults, "answers.mass", "vehicle.mass")}
                onChange={(mass) => put({ mass })}
              />
            </Question>
            <Question title="How large is the driven wheel, and what does it stand on?">
              <Flex gap="3" wrap="wrap">
                <Asked
                  label="Diameter"
                  dimension="length"
                  typical={start.wheel_diameter}
                  value={answers.wheel_diameter}
                  fault={faultOf(faults, "answers.wheel_diameter", "vehicle.wheel_diameter")}
                  onChange={(wheel_diameter) => put({ wheel_diameter })}
                />
                <Box flex="1" minW="240px">
                  <ChoiceField
                    label="Wheel and ground"
                    value={answers.footing ?? start.footing}
                    options={[
                      ...(start.footing ? [] : [["", "not said"] as [string, string]]),
                      ...starts.footings.map((footing): [string, string] => [footing, footing]),
                    ]}
                    readOnly={false}
                    onChange={(footing) => put({ footing: footing || undefined })}
                  />
                </Box>
              </Flex>
            </Question>
            <Drives
              workshop={workshop}
              start={start}
              starts={starts}
              answers={answers}
              put={put}
              faults={faults}
            />
            <Goals start={start} answers={answers} put={put} faults={faults} />
          </Box>
          <Flex gap="3" align="center" mt="3">
            <Button
              variant="solid"
              size="md"
              onClick={() => begin.mutate()}
              loading={begin.isPending}
              data-begin
            >
              Put it on the bench
            </Button>
            {begin.isError && (
              <Box role="alert" color="brick" fontSize="sm">
                {troubleText(begin.error).replaceAll("answers.", "")}
              </Box>
            )}
          </Flex>
        </Box>
      </Flex>
    </Box>
  );
}
