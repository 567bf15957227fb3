import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, troubleText } from "../../api/client";
import { useWorkshops } from "../../api/workshops";
import { Sure } from "../../ui/Sure";

/** Workshops that one has closed, to be opened again or erased. */
export function ClosedWorkshops() {
  const workshops = useWorkshops();
  const closed = workshops.data?.filter((workshop) => workshop.closed_at !== null) ?? [];
  if (closed.length === 0) return null;
  return (
    <>
      <Heading as="h2" size="md" mt="8" mb="1">
        Closed workshops
      </Heading>
      {closed.map((workshop) => (
        <Closed key={workshop.id} id={workshop.id} name={workshop.name} />
      ))}
    </>
  );
}

/** One of them: opened again, or taken away for good. */
function Closed({ id, name }: { id: string; name: string }) {
  const queries = useQueryClient();
  const [erasing, setErasing] = useState(false);
  const again = () => queries.invalidateQueries({ queryKey: ["workshops"] });
  const params = { path: { workshop: id } };
  const reopen = useMutation({
    mutationFn: () => answer(api.DELETE("/api/workshops/{workshop}/closing/", { params })),
    onSettled: again,
  });
  const erase = useMutation({
    mutationFn: (typed: string) =>
      answer(api.POST("/api/workshops/{workshop}/erasing/", { params, body: { name: typed } })),
    onSuccess: again,
  });
  return (
    <Box py="1" borderTopWidth="1px" borderColor="line" data-closed={name}>
      <Flex gap="3" align="center">
        <Box flex="1">{name}</Box>
        <Button size="sm" onClick={() => reopen.mutate()}>
          Open again
        </Button>
        <Button size="sm" variant="ghost" aria-expanded={erasing} onClick={() => setErasing(!erasing)}>
          Erase
        </Button>
      </Flex>
      {erasing && (
        <Box my="2">
          <Sure
            action="Erase it for good"
            label="Name of the workshop to erase"
            placeholder={name}
            busy={erase.isPending}
            onSure={(typed) => erase.mutate(typed)}
          >
            Its vehicles, parts, runs, builds and photos go with it, and nobody can bring them back. Save its
            archive first. To be sure, type its name.
          </Sure>
          {erase.error && (
            <Box role="alert" color="brick" fontSize="sm">
              {troubleText(erase.error)}
            </Box>
          )}
        </Box>
      )}
    </Box>
  );
}
