/** Photos: kept on the device from the moment they are taken until the server has them. */
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, isRefusal, troubleText } from "../../api/client";
import { AS_BYTES } from "../../api/pieces";
import { usePlace } from "../../document/context";
import { newId } from "../../document/newId";
import { useOutbox } from "../../document/useOutbox";
import { keptKey } from "../../ui/kept";
import { dropFile, keepFile, keptFile } from "../../ui/keptFiles";

export interface Photo {
  id: string;
  step: string;
  /** Of its file on this device. */
  file: string;
}

export interface PhotosHeld {
  /** Those that the server does not have yet. */
  waiting: Photo[];
  /** Take one of a step; its id is known at once. */
  take: (step: string, file: File) => string;
  /** Take one away that the server has. */
  remove: (photo: string) => Promise<void>;
  trouble: string;
}

export function usePhotos(): PhotosHeld {
  const { account, vehicle } = usePlace();
  const queries = useQueryClient();
  const [trouble, setTrouble] = useState("");
  const shownAnew = () => queries.invalidateQueries({ queryKey: ["build", vehicle] });
  const { waiting, add } = useOutbox<Photo>(keptKey("photos", account, vehicle), async (photos) => {
    for (const photo of photos) {
      const refused = await send(vehicle, photo);
      if (refused) setTrouble(refused);
      await dropFile(photo.file);
    }
    await shownAnew();
  });
  return {
    waiting,
    take: (step, file) => {
      const id = newId();
      const kept = keptKey("photos", account, vehicle, id);
      setTrouble("");
      void keepFile(kept, file);
      add({ id, step, file: kept });
      return id;
    },
    remove: async (photo) => {
      setTrouble("");
      try {
        const path = { vehicle, photo };
        await answer(api.DELETE("/api/vehicles/{vehicle}/build/photos/{photo}/", { params: { path } }));
        await shownAnew();
      } catch (error) {
        setTrouble(troubleText(error));
      }
    },
    trouble,
  };
}

/** Why the server does not want it, empty where it has it. */
async function send(vehicle: string, { id, step, file: kept }: Photo): Promise<string> {
  const file = await keptFile(kept);
  // It went with an answer that did not come back.
  if (!file) return "";
  try {
    await answer(
      api.POST("/api/vehicles/{vehicle}/build/photos/", {
        params: { path: { vehicle }, query: { step, id } },
        body: file as never,
        ...AS_BYTES,
      }),
    );
    return "";
  } catch (error) {
    if (isRefusal(error)) return troubleText(error);
    throw error;
  }
}
