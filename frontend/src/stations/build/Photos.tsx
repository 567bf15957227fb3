import { Box, Flex } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type BuildStep, troubleText } from "../../api/client";
import { usePlace } from "../../document/context";
import { newId } from "../../document/newId";

/** Photos of a step: taken with the phone, or chosen; made smaller and freed of where they were taken by the server. */
export function Photos({ step }: { step: BuildStep }) {
  const { vehicle } = usePlace();
  const queries = useQueryClient();
  const changed = () => queries.invalidateQueries({ queryKey: ["build", vehicle] });
  const drop = async (photo: string) => {
    const path = { vehicle, photo };
    await api.DELETE("/api/vehicles/{vehicle}/build/photos/{photo}/", { params: { path } });
    await changed();
  };
  return (
    <Flex gap="2" mt="3" wrap="wrap" align="center" data-photos={step.photos.length}>
      <TakePhoto step={step.id} onTaken={() => void changed()} />
      {step.photos.map((photo) => (
        <Box key={photo}>
          <Picture photo={photo} of={step.title} />
          <button type="button" className="quiet" onClick={() => void drop(photo)}>
            take away
          </button>
        </Box>
      ))}
    </Flex>
  );
}

/** A kept photo in small; it opens in full. */
export function Picture({ photo, of }: { photo: string; of: string }) {
  const { vehicle } = usePlace();
  const address = `/api/vehicles/${vehicle}/build/photos/${photo}/`;
  return (
    <a href={address} target="_blank" rel="noreferrer">
      <img src={address} alt={`Of: ${of}`} style={{ height: 72, borderRadius: 3 }} loading="lazy" />
    </a>
  );
}

interface TakeProps {
  step: string;
  onTaken: (photo: string) => void;
}

/** A photo of a step from the camera or a file. */
export function TakePhoto({ step, onTaken }: TakeProps) {
  const { vehicle } = usePlace();
  const [trouble, setTrouble] = useState("");
  const [sending, setSending] = useState(false);
  const send = async (file: File) => {
    setSending(true);
    setTrouble("");
    try {
      const id = newId();
      await answer(
        api.POST("/api/vehicles/{vehicle}/build/photos/", {
          params: { path: { vehicle }, query: { step, id } },
          body: file as never,
          bodySerializer: (body: unknown) => body as Blob,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      );
      onTaken(id);
    } catch (error) {
      setTrouble(troubleText(error));
    }
    setSending(false);
  };
  return (
    <>
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
      {trouble && (
        <Box role="alert" color="brick" w="100%">
          {trouble}
        </Box>
      )}
    </>
  );
}
