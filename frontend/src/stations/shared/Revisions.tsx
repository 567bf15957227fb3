import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, type Revision, troubleText } from "../../api/client";
import { useEdit, usePlace } from "../../document/context";
import type { DesignDocument } from "../../document/document";
import { day } from "../../ui/when";

export function useRevisions() {
  const { vehicle, saved } = usePlace();
  return useQuery({
    queryKey: ["revisions", vehicle, saved],
    queryFn: () => answer(api.GET("/api/vehicles/{vehicle}/revisions/", { params: { path: { vehicle } } })),
    placeholderData: (old) => old,
  });
}

export async function documentOf(vehicle: string, number: number): Promise<DesignDocument> {
  const params = { params: { path: { vehicle, number } } };
  const reply = await answer(api.GET("/api/vehicles/{vehicle}/revisions/{number}/", params));
  return reply.document as unknown as DesignDocument;
}

interface Props {
  compared: number[];
  onCompare: (number: number) => void;
}

/** States of the design worth coming back to, by name, with what was changed from one to the next. */
export function Revisions({ compared, onCompare }: Props) {
  const revisions = useRevisions();
  const named = revisions.data?.filter((r) => r.name) ?? [];
  const newest = revisions.data?.[0];
  return (
    <Box data-revisions>
      <Box as="h2" fontWeight="600" mb="1">
        Kept revisions
      </Box>
      <Keep newest={newest} />
      <Box color="ink.second" fontSize="sm" my="1">
        What has a name stays. Of the rest all of the last day are kept, one an hour of the last week, and one
        a day of what is older.
      </Box>
      {named.length === 0 && (
        <Box color="ink.second">None yet: give the present state a name to come back to it.</Box>
      )}
      <Box as="ul" listStyleType="none" p="0">
        {named.map((revision) => (
          <Kept
            key={revision.number}
            revision={revision}
            compared={compared.includes(revision.number)}
            onCompare={onCompare}
          />
        ))}
      </Box>
    </Box>
  );
}

/** The present state under a name; only what is saved can be kept. */
function Keep({ newest }: { newest: Revision | undefined }) {
  const { vehicle, saved } = usePlace();
  const { readOnly } = useEdit();
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const keep = useMutation({
    mutationFn: (number: number) =>
      answer(
        api.PATCH("/api/vehicles/{vehicle}/revisions/{number}/", {
          params: { path: { vehicle, number } },
          body: { name: name.trim() },
        }),
      ),
    onSuccess: () => {
      setName("");
      void queries.invalidateQueries({ queryKey: ["revisions", vehicle] });
    },
  });
  if (readOnly) return null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (newest && name.trim()) keep.mutate(newest.number);
  };
  return (
    <form onSubmit={submit}>
      <Flex gap="1" mb="2">
        <Input
          size="sm"
          aria-label="Name of this state"
          placeholder="a name for it"
          value={name}
          maxLength={200}
          fontFamily="body"
          onChange={(event) => setName(event.target.value)}
        />
        <Button size="sm" type="submit" disabled={!name.trim() || saved === null || !newest}>
          Keep this state
        </Button>
      </Flex>
      {keep.isError && (
        <Box role="alert" color="brick">
          {troubleText(keep.error)}
        </Box>
      )}
    </form>
  );
}

function Kept({
  revision,
  compared,
  onCompare,
}: {
  revision: Revision;
  compared: boolean;
  onCompare: (number: number) => void;
}) {
  const { vehicle } = usePlace();
  const { edit, readOnly } = useEdit();
  const take = useMutation({
    mutationFn: () => documentOf(vehicle, revision.number),
    onSuccess: (document) => edit(() => document),
  });
  return (
    <Box as="li" py="1" borderTopWidth="1px" borderColor="line" data-revision={revision.number}>
      <Box fontWeight="600">{revision.name}</Box>
      <Flex gap="2" align="center" justify="space-between">
        <label style={{ fontSize: "13px" }}>
          <input type="checkbox" checked={compared} onChange={() => onCompare(revision.number)} /> compare
        </label>
        {!readOnly && (
          <Button size="xs" onClick={() => take.mutate()} aria-label={`Put on the bench: ${revision.name}`}>
            Put on the bench
          </Button>
        )}
      </Flex>
      <Box fontSize="sm" color="ink.second">
        {revision.summary || "the first one kept"} · {revision.author ?? "somebody"}, {day(revision.saved_at)}
      </Box>
    </Box>
  );
}
