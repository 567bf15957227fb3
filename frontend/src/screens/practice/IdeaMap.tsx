import { Box, Flex } from "@chakra-ui/react";
import type { Idea, Standing } from "../../api/client";
import { StandingMark } from "../../ui/StandingMark";

const MARKS: Record<Idea["grasp"], Standing> = { sure: "holds", shaky: "tight", new: "unknown" };

interface Props {
  ideas: Idea[];
  current: string;
  /** The idea that comes next by itself, empty where nothing is kept. */
  next: string;
  onChoose: (idea: string) => void;
}

/** All ideas in the order in which they are taught, with how well each is had. */
export function IdeaMap({ ideas, current, next, onChoose }: Props) {
  return (
    <Box as="nav" aria-label="Ideas" data-ideas>
      <Box
        display="grid"
        gridTemplateColumns={{ base: "repeat(auto-fill, minmax(150px, 1fr))", lg: "1fr" }}
        gap="1px"
      >
        {ideas.map((entry) => (
          <button
            key={entry.idea}
            type="button"
            className="plain"
            aria-current={entry.idea === current ? "true" : undefined}
            onClick={() => onChoose(entry.idea)}
            data-idea={entry.idea}
            data-grasp={entry.grasp}
            style={{ textAlign: "left", padding: "5px 8px" }}
          >
            <Flex gap="2" align="center">
              <StandingMark standing={MARKS[entry.grasp]} size={13} />
              <Box flex="1" fontWeight={entry.idea === current ? 700 : 400}>
                {entry.idea}
              </Box>
              <Box fontSize="sm" color="ink.second" fontFamily="mono">
                {entry.idea === next ? "next" : entry.grasp === "new" ? "" : entry.level}
              </Box>
            </Flex>
          </button>
        ))}
      </Box>
      <Box fontSize="sm" color="ink.second" mt="2" px="2">
        {(["sure", "shaky", "new"] as const).map((grasp) => (
          <Flex key={grasp} as="span" display="inline-flex" gap="1" align="center" mr="3">
            <StandingMark standing={MARKS[grasp]} size={11} /> {grasp}
          </Flex>
        ))}
        The number is the level that comes next.
      </Box>
    </Box>
  );
}
