import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, type Starts } from "../../api/client";
import { MiniLine } from "../../drawing/MiniLine";
import { StartPicture } from "../../drawing/StartPicture";

/** The vehicles to start from. */
export function useStarts() {
  return useQuery({
    queryKey: ["starts"],
    queryFn: () => answer(api.GET("/api/starts/")),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** Their pictures, each a way to the questions. */
export function StartGrid({ workshop, starts }: { workshop: string; starts: Starts }) {
  return (
    <Box
      display="grid"
      gridTemplateColumns={{
        base: "repeat(2, minmax(0, 1fr))",
        md: "repeat(3, minmax(0, 1fr))",
        lg: "repeat(5, minmax(0, 1fr))",
      }}
      gap="3"
      data-starts
    >
      {starts.starts.map((start) => (
        <Box key={start.key} asChild className="start" data-start={start.key}>
          <Link to={`/workshops/${workshop}/new?start=${start.key}`}>
            {start.key === "empty" ? (
              <MiniLine line={start.line} name={start.title} />
            ) : (
              <StartPicture picture={start.picture} title={start.title} />
            )}
            <Box fontWeight="700">{start.title}</Box>
            <Box color="ink.second" fontSize="sm" lineHeight="1.3">
              {start.words}
            </Box>
          </Link>
        </Box>
      ))}
    </Box>
  );
}
