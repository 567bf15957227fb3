import { Box, Button, Flex } from "@chakra-ui/react";
import { useCallback, useEffect, useMemo, useState } from "react";
import { Link } from "react-router";
import { RefusedError } from "../../api/client";
import { useParts } from "../../document/bin/useBin";
import { useDocument, useEdit, usePlace } from "../../document/context";
import { keysOf, useCommands } from "../../ui/commands/commands";
import { whole } from "../../ui/money";
import { Answer, Earlier } from "./Answer";
import { Choices } from "./Choices";
import { Layouts } from "./Layouts";
import { keepWishes, NO_WISHES, recallWishes, requestOf, type StageChoice, type Wishes } from "./request";
import { TurnedRound } from "./TurnedRound";
import { useSearches, useSurvey } from "./useSearches";

const FRAME = { bg: "panel", borderWidth: "1px", borderColor: "line", borderRadius: "3px", p: "3" } as const;

const KEYS = keysOf("Options, while the list or the field has the focus", [
  ["↑ ↓", "the next option of the list"],
  ["← →", "along the best edge of the field"],
  ["Enter", "put the option on the bench"],
  ["P", "pin it, to be set side by side"],
]);

/** What is left between the head and the readout. */
const PANEL_HEIGHT = "calc(100dvh - 172px)";

/** What could reach the targets with the parts at hand, and why the rest does not. */
export function OptionsStation() {
  useCommands(KEYS);
  const { vehicle, workshop } = usePlace();
  const { readOnly } = useEdit();
  const document = useDocument();
  const parts = useParts(workshop);
  const [kept, setWishes] = useState<Wishes | null>(() => recallWishes(vehicle));
  const request = useMemo(() => requestOf(document, kept ?? NO_WISHES), [document, kept]);
  const survey = useSurvey(request);
  const searches = useSearches();
  // Without a choice yet, the design's own layout is the one that is looked through.
  const own = survey.data?.suggested[0]?.layout.stages as StageChoice[] | undefined;
  const wishes = kept ?? NO_WISHES;
  useEffect(() => {
    if (kept === null && own) setWishes({ ...NO_WISHES, layouts: [own] });
  }, [kept, own]);
  useEffect(() => {
    if (kept) keepWishes(vehicle, kept);
  }, [vehicle, kept]);
  const [turned, setTurned] = useState(false);
  const total = survey.data?.combinations.reduce((sum, n) => sum + n, 0) ?? 0;
  const documents = parts.data?.map((part) => part.document) ?? [];
  const { start } = searches;
  const again = useCallback(() => start(request), [start, request]);
  return (
    <Box
      display="grid"
      gridTemplateColumns={{ base: "minmax(0, 1fr)", lg: "316px minmax(0, 1fr)" }}
      gap="2"
      alignItems="start"
    >
      <Flex {...FRAME} direction="column" maxH={{ lg: PANEL_HEIGHT }} data-screen-only>
        <Box flex="1" minH="0" overflowY={{ lg: "auto" }} pr="1">
          {parts.isSuccess && documents.length === 0 && <EmptyBin workshop={workshop} />}
          <Layouts
            layouts={wishes.layouts}
            suggested={survey.data?.suggested ?? []}
            pictures={survey.data?.pictures ?? []}
            combinations={survey.data?.combinations ?? []}
            parts={documents}
            onChange={(layouts) => setWishes({ ...wishes, layouts })}
          />
          <Box mt="2">
            <Choices
              wishes={wishes}
              parts={documents}
              onChange={(part) => setWishes({ ...wishes, ...part })}
            />
          </Box>
        </Box>
        <Button
          mt="2"
          variant="solid"
          w="100%"
          flexShrink={0}
          disabled={readOnly || total === 0 || searches.starting}
          onClick={again}
          data-search
        >
          Search {whole(total)} combinations
        </Button>
        <Faults
          survey={survey.data?.faults ?? []}
          trouble={searches.trouble}
          layouts={wishes.layouts.length}
        />
        {total > (survey.data?.at_once ?? 0) && (
          <Box fontSize="12.5px" color="ink.second" mt="1">
            So many are gone through in the background; you can go on meanwhile.
          </Box>
        )}
      </Flex>
      <Box minW="0" {...FRAME}>
        <Flex gap="4" mb="2" fontSize="sm" align="center" wrap="wrap" data-screen-only>
          <Flex gap="4" role="tablist" aria-label="Options">
            {[false, true].map((which) => (
              <button
                key={String(which)}
                type="button"
                role="tab"
                className="tab"
                aria-selected={turned === which}
                onClick={() => setTurned(which)}
              >
                {which ? "The question turned round" : "What reaches the targets"}
              </button>
            ))}
          </Flex>
          {!turned && <Earlier searches={searches} />}
        </Flex>
        {turned ? (
          <TurnedRound unknowns={survey.data?.unknowns ?? []} />
        ) : (
          <Answer searches={searches} onAgain={again} />
        )}
      </Box>
    </Box>
  );
}

function EmptyBin({ workshop }: { workshop: string }) {
  return (
    <Box mb="3" data-empty-bin>
      The bin of this workshop is empty, so there is nothing to choose from.{" "}
      <Box asChild color="spruce" textDecoration="underline">
        <Link to={`/parts?workshop=${workshop}&kind=gear`}>Fill it first</Link>
      </Box>
      : a line such as “module 1: 12 14 16 48 60” is enough to begin.
    </Box>
  );
}

function Faults({
  survey,
  trouble,
  layouts,
}: {
  survey: { path: string; problem: string; remedy: string }[];
  trouble: Error | null;
  layouts: number;
}) {
  const told = trouble instanceof RefusedError ? (trouble.refusal.faults ?? []) : [];
  const lines = [...survey, ...told].map((fault) => `${fault.path}: ${fault.problem}, ${fault.remedy}`);
  const shown =
    layouts === 0 ? ["Choose a layout."] : lines.length > 0 ? lines : trouble ? [trouble.message] : [];
  if (shown.length === 0) return null;
  return (
    <Box as="ul" role="alert" color="brick" fontSize="sm" mt="1" listStyleType="none" p="0">
      {[...new Set(shown)].slice(0, 5).map((line) => (
        <li key={line}>{line}</li>
      ))}
    </Box>
  );
}
