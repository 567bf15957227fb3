import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { useNavigate } from "react-router";
import { answer, api, troubleText } from "../../api/client";
import { FileInput } from "../../ui/fields/FileInput";

/** The workshop as one file, and a file as a workshop. */
export function Archive({ workshop }: { workshop: string }) {
  const file = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const open = useMutation({
    mutationFn: (chosen: File) =>
      answer(
        api.POST("/api/archives/", {
          body: chosen as unknown as string,
          bodySerializer: (body: unknown) => body as Blob,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      ),
    onSuccess: async (created) => {
      await queries.invalidateQueries({ queryKey: ["workshops"] });
      navigate(`/?workshop=${created.id}`);
    },
  });
  return (
    <Box mt="8" data-archive>
      <Heading as="h2" size="md" mb="1">
        As one file
      </Heading>
      <Box color="ink.second" mb="2">
        Designs with their named revisions, the bin, all runs, builds and photos, in open formats.
      </Box>
      <Flex gap="2" wrap="wrap" align="center">
        <Button asChild>
          <a href={`/api/workshops/${workshop}/archive/`} download>
            Save the archive
          </a>
        </Button>
        <Button loading={open.isPending} onClick={() => file.current?.click()}>
          Open one as a workshop of its own
        </Button>
        <FileInput
          ref={file}
          accept=".zip,application/zip"
          hidden
          aria-label="Archive file"
          onPick={(file) => open.mutate(file)}
        />
      </Flex>
      {open.isError && (
        <Box role="alert" color="brick" mt="2">
          {troubleText(open.error)}
        </Box>
      )}
    </Box>
  );
}
