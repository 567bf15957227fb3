import { Box, Button, Flex } from "@chakra-ui/react";
import { useInfiniteQuery, useMutation } from "@tanstack/react-query";
import { answer, api, type HistoryEntry, troubleText } from "../../api/client";
import { useEdit, usePlace } from "../../document/context";
import { merge } from "../../document/merge";
import { moment } from "../../ui/when";
import { documentOf } from "./Revisions";

interface Props {
  compared: number[];
  onCompare: (number: number) => void;
}

/** Who changed what, the newest first: each state can be looked at and put back, each change taken back. */
export function History({ compared, onCompare }: Props) {
  const { vehicle, saved } = usePlace();
  const history = useInfiniteQuery({
    queryKey: ["history", vehicle, saved],
    queryFn: ({ pageParam }) =>
      answer(
        api.GET("/api/vehicles/{vehicle}/history/", {
          params: { path: { vehicle }, query: pageParam === null ? {} : { before: pageParam } },
        }),
      ),
    initialPageParam: null as number | null,
    // An entry's own first revision is not told: what it began from is looked through again, and is the last then.
    getNextPageParam: (page) => {
      const before = page.at(-1)?.before;
      return before == null ? undefined : before + 1;
    },
    placeholderData: (old) => old,
  });
  const entries = history.data?.pages.flat() ?? [];
  return (
    <Box mt="4" data-history>
      <Box as="h2" fontWeight="600" mb="1">
        Who changed what
      </Box>
      <Box as="ol" listStyleType="none" p="0" maxH="420px" overflowY="auto" tabIndex={0} aria-label="History">
        {entries.map((entry) => (
          <Entry
            key={entry.number}
            entry={entry}
            newest={entry === entries[0]}
            compared={compared.includes(entry.number)}
            onCompare={onCompare}
          />
        ))}
      </Box>
      {history.hasNextPage && (
        <Button size="xs" mt="1" loading={history.isFetchingNextPage} onClick={() => history.fetchNextPage()}>
          Further back
        </Button>
      )}
    </Box>
  );
}

interface EntryProps {
  entry: HistoryEntry;
  newest: boolean;
  compared: boolean;
  onCompare: (number: number) => void;
}

function Entry({ entry, newest, compared, onCompare }: EntryProps) {
  const { readOnly } = useEdit();
  const putBack = usePutBack(entry);
  const takeBack = useTakeBack(entry);
  const trouble = takeBack.error ?? putBack.error;
  return (
    <Box as="li" py="1" borderTopWidth="1px" borderColor="line" fontSize="sm" data-entry={entry.number}>
      <Box>{entry.words}</Box>
      <Box color="ink.second">
        {entry.author ?? "somebody"}, {moment(entry.ended)}
        {entry.name && ` · kept as “${entry.name}”`}
      </Box>
      <Flex gap="2" align="center" wrap="wrap">
        <label style={{ fontSize: "13px" }}>
          <input type="checkbox" checked={compared} onChange={() => onCompare(entry.number)} /> compare
        </label>
        {!readOnly && !newest && (
          <Button size="xs" variant="ghost" onClick={() => putBack.mutate()}>
            Back to this
          </Button>
        )}
        {!readOnly && entry.before !== null && (
          <Button size="xs" variant="ghost" onClick={() => takeBack.mutate()}>
            Take back
          </Button>
        )}
      </Flex>
      {trouble && (
        <Box role="alert" color="brick">
          {troubleText(trouble)}
        </Box>
      )}
    </Box>
  );
}

/** The whole design as it was then. */
function usePutBack(entry: HistoryEntry) {
  const { vehicle } = usePlace();
  const { edit } = useEdit();
  return useMutation({
    mutationFn: () => documentOf(vehicle, entry.number),
    onSuccess: (document) => edit(() => document),
  });
}

/** This change alone, whoever made it: what was changed since, by anybody, stays. */
function useTakeBack(entry: HistoryEntry) {
  const { vehicle } = usePlace();
  const { edit, present } = useEdit();
  return useMutation({
    mutationFn: async () => {
      if (entry.before === null) return;
      const [after, before] = await Promise.all([
        documentOf(vehicle, entry.number),
        documentOf(vehicle, entry.before),
      ]);
      const { document, collisions } = merge(after, present(), before);
      if (collisions.length > 0)
        throw new Error(
          "The same has been changed again since: take that back first, or go back to a state before.",
        );
      edit(() => document);
    },
  });
}
