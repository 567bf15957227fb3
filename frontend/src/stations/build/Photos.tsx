import { Box, Flex } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import type { BuildStep } from "../../api/client";
import { usePlace } from "../../document/context";
import { FileInput } from "../../ui/fields/FileInput";
import { keptFile } from "../../ui/keptFiles";
import type { PhotosHeld } from "./usePhotos";

/** Photos of a step: taken with the phone, or chosen; made smaller and freed of where they were taken by the server. */
export function Photos({ step, photos }: { step: BuildStep; photos: PhotosHeld }) {
  // For a moment one is both: on the server, and not yet gone from here.
  const waiting = photos.waiting.filter((one) => one.step === step.id && !step.photos.includes(one.id));
  return (
    <Flex gap="2" mt="3" wrap="wrap" align="center" data-photos={step.photos.length}>
      <TakePhoto onTaken={(file) => photos.take(step.id, file)} />
      {step.photos.map((photo) => (
        <Box key={photo}>
          <Picture photo={photo} of={step.title} />
          <button type="button" className="quiet" onClick={() => void photos.remove(photo)}>
            take away
          </button>
        </Box>
      ))}
      {waiting.map(({ id, file }) => (
        <Box key={id} data-photo-waiting>
          <KeptPicture file={file} of={step.title} />
          <Box fontSize="sm" color="ink.second">
            kept here until it is sent
          </Box>
        </Box>
      ))}
      <PhotoTrouble photos={photos} />
    </Flex>
  );
}

/** Why a photo was not taken by the server. */
export function PhotoTrouble({ photos }: { photos: PhotosHeld }) {
  if (!photos.trouble) return null;
  return (
    <Box role="alert" color="brick" w="100%">
      {photos.trouble}
    </Box>
  );
}

const SMALL = { height: 72, borderRadius: 3 };

/** A photo in small, from the server; it opens in full. */
export function Picture({ photo, of }: { photo: string; of: string }) {
  const { vehicle } = usePlace();
  const address = `/api/vehicles/${vehicle}/build/photos/${photo}/`;
  return (
    <a href={address} target="_blank" rel="noreferrer">
      <img src={address} alt={`Of: ${of}`} style={SMALL} loading="lazy" />
    </a>
  );
}

/** A photo by its number: from this device as long as it waits there, then from the server. */
export function PhotoOf({ photo, of, photos }: { photo: string; of: string; photos: PhotosHeld }) {
  const waiting = photos.waiting.find((one) => one.id === photo);
  return waiting ? <KeptPicture file={waiting.file} of={of} /> : <Picture photo={photo} of={of} />;
}

/** One that is still on this device alone. */
function KeptPicture({ file, of }: { file: string; of: string }) {
  const [address, setAddress] = useState("");
  useEffect(() => {
    let made = "";
    let gone = false;
    void keptFile(file).then((found) => {
      if (!found || gone) return;
      made = URL.createObjectURL(found);
      setAddress(made);
    });
    return () => {
      gone = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [file]);
  return address ? <img src={address} alt={`Of: ${of}`} style={SMALL} /> : null;
}

/** A photo from the camera or a file. */
export function TakePhoto({ onTaken }: { onTaken: (file: File) => void }) {
  return (
    <label className="file">
      Photo
      <FileInput accept="image/*" capture="environment" onPick={onTaken} />
    </label>
  );
}
