import { Box, Button } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api, troubleText } from "../../api/client";
import { usePlace } from "../../document/context";
import { ProgressBar } from "../../ui/ProgressBar";

const OFTEN_MS = 400;

/** The steps on paper, with boxes, drawings and numbers: written by the server, chapter by chapter. */
export function BookletButton() {
  const { vehicle } = usePlace();
  const [asked, setAsked] = useState("");
  const [trouble, setTrouble] = useState("");
  const begin = async () => {
    setTrouble("");
    try {
      const reply = await answer(
        api.POST("/api/vehicles/{vehicle}/build/booklets/", { params: { path: { vehicle } } }),
      );
      setAsked(reply.id);
    } catch (error) {
      setTrouble(troubleText(error));
    }
  };
  const { data } = useQuery({
    queryKey: ["booklet", asked],
    queryFn: () =>
      answer(
        api.GET("/api/vehicles/{vehicle}/build/booklets/{booklet}/", {
          params: { path: { vehicle, booklet: asked } },
        }),
      ),
    enabled: asked !== "",
    refetchInterval: ({ state }) =>
      state.data && ["done", "failed"].includes(state.data.state) ? false : OFTEN_MS,
  });
  const done = data?.state === "done";
  const address = `/api/vehicles/${vehicle}/build/booklets/${asked}/file/`;
  useEffect(() => {
    if (done) window.location.assign(address);
  }, [done, address]);
  const writing = asked !== "" && !done && data?.state !== "failed";
  return (
    <>
      {writing && (
        <Box role="status" fontSize="sm" data-booklet="writing">
          {data?.chapters ? `chapter ${data.written} of ${data.chapters}` : "the booklet is being written"}
          <ProgressBar
            label="How much of the booklet is written"
            share={data?.chapters ? data.written / data.chapters : null}
            width="140px"
          />
        </Box>
      )}
      {done && (
        <a href={address} data-booklet="done">
          The booklet
        </a>
      )}
      {(trouble || data?.trouble) && (
        <Box role="alert" color="brick" fontSize="sm">
          {trouble || data?.trouble}
        </Box>
      )}
      <Button size="xs" onClick={() => void begin()} disabled={writing}>
        Booklet (PDF)
      </Button>
    </>
  );
}
