import { Box } from "@chakra-ui/react";
import type { Fault, Start } from "../../api/client";
import { QuantityField } from "../../ui/fields/QuantityField";
import { BOUNDS, MEASURES } from "../../words/measures";
import { type Answers, faultOf, type Put } from "./answers";
import { Question } from "./Question";

interface Props {
  start: Start;
  answers: Answers;
  put: Put;
  faults: Fault[];
}

/** What it is to do, as the sentences of the Brief. */
export function Goals({ start, answers, put, faults }: Props) {
  const goals = answers.goals ?? start.goals.map((goal) => goal.values);
  const say = (place: number, edge: number, text: string) =>
    put({
      goals: goals.map((values, i) => (i === place ? values.map((v, e) => (e === edge ? text : v)) : values)),
    });
  return (
    <Question title="What should it do?">
      {start.goals.map((goal, place) => {
        const words = MEASURES[goal.measure];
        const fault = faultOf(faults, `targets[${place}]`, `answers.goals[${place}]`);
        return (
          <Box key={goal.measure} lineHeight="2.3" data-goal={goal.measure}>
            {words?.before.replace("{run}", "the distance")} {BOUNDS[goal.bound]}{" "}
            {(goals[place] ?? []).map((text, edge) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: an edge of a band is its place
              <Box as="span" key={edge}>
                {edge > 0 && " and "}
                <QuantityField
                  label={`${words?.label.replace("{run}", "distance")}, ${edge > 0 ? "upper" : "lower"} bound`}
                  inline
                  dimension={goal.dimension}
                  value={text}
                  fault={edge === 0 ? fault : undefined}
                  onChange={(typed) => say(place, edge, typed ?? "")}
                />
              </Box>
            ))}{" "}
            {words?.after}
          </Box>
        );
      })}
    </Question>
  );
}
