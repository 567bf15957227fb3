import { Box, Heading } from "@chakra-ui/react";
import { useParams, useSearchParams } from "react-router";
import { troubleText } from "../../api/client";
import { TopBar } from "../../ui/frame/TopBar";
import { useTitle } from "../../ui/frame/useTitle";
import { Questions } from "./Questions";
import { StartGrid, useStarts } from "./StartGrid";

/** Putting a vehicle on the bench: a picture to start from, then a few questions. */
export default function Begin() {
  const { workshop = "" } = useParams();
  const [search] = useSearchParams();
  const starts = useStarts();
  const chosen = starts.data?.starts.find((start) => start.key === search.get("start"));
  useTitle("A new vehicle");
  return (
    <>
      <TopBar workshop={workshop} />
      <Box as="main" maxW="1180px" mx="auto" px="4" py="4">
        {starts.isError && <Box role="alert">{troubleText(starts.error)}</Box>}
        {starts.data && chosen && (
          <Questions key={chosen.key} workshop={workshop} start={chosen} starts={starts.data} />
        )}
        {starts.data && !chosen && (
          <>
            <Heading as="h1" size="xl">
              What is it most like?
            </Heading>
            <Box color="ink.second" mb="3">
              Each is a whole design with typical values. What you know better you change, now or later.
            </Box>
            <StartGrid workshop={workshop} starts={starts.data} />
          </>
        )}
      </Box>
    </>
  );
}
