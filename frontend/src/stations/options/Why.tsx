import { Box, Button, Flex } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Options, troubleText } from "../../api/client";
import { freeId } from "../../document/bin/cells";
import { useParts } from "../../document/bin/useBin";
import { useEdit, usePlace } from "../../document/context";
import { useUnits } from "../../ui/fields/units";
import { whole } from "../../ui/money";
import { runText } from "../../ui/readout/Readout";
import { label } from "../../words/measures";
import { percent } from "./OptionList";

/** Why options fail, as counts by reason, and what single addition would help most. */
export function Why({ options, onAdded }: Props) {
  const failing = options.combinations - options.meeting_all;
  return (
    <Box fontSize="sm" data-why>
      {failing > 0 && (
        <>
          <Box as="h2" fontWeight="600">
            Why {whole(failing)} {failing === 1 ? "fails" : "fail"}
          </Box>
          {options.failing.map((reason) => (
            <Box key={reason.key} display="grid" gridTemplateColumns="1fr auto" gap="2" py="1px">
              <span>{reason.words}</span>
              <Box as="span" fontFamily="mono">
                {whole(reason.count)}
              </Box>
              <Box gridColumn="1 / -1" h="3px" bg="line">
                <Box h="3px" bg="brick" w={`${(100 * reason.count) / failing}%`} />
              </Box>
            </Box>
          ))}
        </>
      )}
      {options.additions.length > 0 && <Additions options={options} onAdded={onAdded} />}
      {options.unpriced.length > 0 && (
        <Box color="ink.second" mt="2">
          Counted as costing nothing, since no price is known: {options.unpriced.slice(0, 6).join(", ")}
          {options.unpriced.length > 6 && ` and ${options.unpriced.length - 6} more`}.
        </Box>
      )}
    </Box>
  );
}

interface Props {
  options: Options;
  onAdded: () => void;
}

/** Where nothing meets all: by how little the nearest misses, and the one change that would help most. */
export function NearestMiss({ options, onAdded }: Props) {
  const { readOnly } = useEdit();
  const units = useUnits();
  const add = useAddition(onAdded);
  const [nearest] = options.rows;
  const [help] = options.additions;
  if (!nearest || !options.measures.some((measure) => measure.wanted)) return null;
  const missed = nearest.targets
    .map((target, i) => ({ target, measure: options.measures[i] as Options["measures"][number] }))
    .filter(({ target }) => target.standing === "misses")
    .map(
      ({ target, measure }) =>
        `${label(measure.measure, runText(measure, units))} by ${percent(target.margin)}`,
    );
  return (
    <Flex bg="copper.wash" px="3" py="2" mb="2" gap="3" align="center" wrap="wrap" data-nearest>
      <Box flex="1" minW="260px">
        <b>
          {missed.length > 0 ? `The nearest misses ${missed.join(", ")}.` : "The nearest will not start."}
        </b>{" "}
        {help &&
          `${capital(help.words)}${help.meets_all ? " would meet every target." : " would come nearest."}`}
      </Box>
      {help?.part && !readOnly && (
        <Button
          size="sm"
          variant="solid"
          loading={add.isPending}
          onClick={() => help.part && add.mutate(help.part)}
        >
          Add it and search again
        </Button>
      )}
      {add.isError && (
        <Box role="alert" color="brick">
          {troubleText(add.error)}
        </Box>
      )}
    </Flex>
  );
}

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** Puts a part into the bin that the workshop does not have yet. */
function useAddition(onAdded: () => void) {
  const { workshop } = usePlace();
  const queries = useQueryClient();
  const parts = useParts(workshop);
  return useMutation({
    mutationFn: (part: Record<string, unknown>) => {
      const id = freeId(String(part.kind), new Set(parts.data?.map((p) => p.document.id)));
      return answer(
        api.POST("/api/workshops/{workshop}/parts/", {
          params: { path: { workshop } },
          body: { changes: [{ id, base: 0, document: { ...part, id } }] },
        }),
      );
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["parts", workshop] });
      onAdded();
    },
  });
}

function Additions({ options, onAdded }: Props) {
  const { readOnly } = useEdit();
  const add = useAddition(onAdded);
  return (
    <Box mt="2">
      <Box as="h2" fontWeight="600">
        What one addition would change
      </Box>
      <Box as="ul" listStyleType="none" p="0">
        {options.additions.map((addition) => (
          <Box as="li" key={addition.words} py="2px" data-addition>
            {addition.words}
            {addition.meets_all ? <b> would meet every target</b> : " would come nearer"}
            {addition.part && !readOnly && (
              <Button size="xs" ml="2" onClick={() => addition.part && add.mutate(addition.part)}>
                Add it and search again
              </Button>
            )}
          </Box>
        ))}
      </Box>
      {add.isError && (
        <Box role="alert" color="brick">
          {troubleText(add.error)}
        </Box>
      )}
    </Box>
  );
}
