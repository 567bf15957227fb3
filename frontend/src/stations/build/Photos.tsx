import { Box, Flex } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type BuildStep, troubleText } from "../../api/client";
import { usePlace } from "../../document/context";

/** Photos of a step: taken with the phone, or chosen; made smaller and freed of where they were taken by the server. */
export function Photos({ step }: { step: BuildStep }) {
  const { vehicle } = usePlace();
  const queries = useQueryClient();
  const [trouble, setTrouble] = useState("");
  const [sending, setSending] = useState(false);
  const changed = () => queries.invalidateQueries({ queryKey: ["build", vehicle] });
  const send = async (file: File) => {
    setSending(true);
    setTrouble("");
    try {
      await answer(
        api.POST("/api/vehicles/{vehicle}/build/photos/", {
          params: { path: { vehicle }, query: { step: step.id, id: crypto.randomUUID() } },
          body: file as never,
          bodySerializer: (body: unknown) => body as Blob,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      );
      await changed();
    } catch (error) {
      setTrouble(troubleText(error));
    }
    setSending(false);
  };
  const drop = async (photo: string) => {
    const path = { vehicle, photo };
    await api.DELETE("/api/vehicles/{vehicle}/build/photos/{photo}/", { params: { path } });
    await changed();
  };
  return (
    <Flex gap="2" mt="3" wrap="wrap" align="center" data-photos={step.photos.length}>
      <label className="file">
        {sending ? "Sending the photo …" : "Photo"}
        <input
          type="file"
          accept="image/*"
          capture="environment"
          disabled={sending}
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) void send(file);
            event.target.value = "";
          }}
        />
      </label>
      {step.photos.map((photo) => (
        <Box key={photo} position="relative">
          <a href={`/api/vehicles/${vehicle}/build/photos/${photo}/`} target="_blank" rel="noreferrer">
            <img
              src={`/api/vehicles/${vehicle}/build/photos/${photo}/`}
              alt={`Of: ${step.title}`}
              style={{ height: 72, borderRadius: 3 }}
              loading="lazy"
            />
          </a>
          <button type="button" className="quiet" onClick={() => void drop(photo)}>
            take away
          </button>
        </Box>
      ))}
      {trouble && (
        <Box role="alert" color="brick" w="100%">
          {trouble}
        </Box>
      )}
    </Flex>
  );
}
