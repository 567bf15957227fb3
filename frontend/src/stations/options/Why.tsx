import { Box, Button } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Options } from "../../api/client";
import { freeId } from "../../document/bin/cells";
import { useParts } from "../../document/bin/useBin";
import { useEdit, usePlace } from "../../document/context";
import { whole } from "../../ui/money";

/** Why options fail, as counts by reason, and what single addition would help most. */
export function Why({ options, onAdded }: { options: Options; onAdded: () => void }) {
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

function Additions({ options, onAdded }: { options: Options; onAdded: () => void }) {
  const { workshop } = usePlace();
  const { readOnly } = useEdit();
  const queries = useQueryClient();
  const parts = useParts(workshop);
  const add = useMutation({
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
          {add.error.message}
        </Box>
      )}
    </Box>
  );
}
