import { Box, Button } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, troubleText } from "../../api/client";
import { Strip } from "../../document/Unsaved";

/** Over a scratch vehicle: that it goes by itself, and how it is kept. */
export function Scratch({ vehicle }: { vehicle: string }) {
  const keep = useMutation({
    mutationFn: () =>
      answer(api.PATCH("/api/vehicles/{vehicle}/", { params: { path: { vehicle } }, body: { keep: true } })),
  });
  if (keep.isSuccess) return <Strip>It is on the bench now.</Strip>;
  return (
    <Strip>
      <Box>A scratch vehicle, from an exercise: it goes by itself after a day.</Box>
      <Button size="xs" loading={keep.isPending} onClick={() => keep.mutate()}>
        Keep it on the bench
      </Button>
      <Button size="xs" variant="outline" asChild>
        <Link to="/practice">Back to practice</Link>
      </Button>
      {keep.isError && <Box role="alert">{troubleText(keep.error)}</Box>}
    </Strip>
  );
}
