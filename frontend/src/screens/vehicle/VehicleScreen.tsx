import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { answer, api } from "../../api/client";
import type { DesignDocument } from "../../document/document";
import { readDraft } from "../../document/draft";
import { Notice } from "../../ui/frame/Notice";
import { TopBar } from "../../ui/frame/TopBar";
import { Workbench } from "./Workbench";

/** Loads a vehicle, with what was typed here and never saved, and opens it. */
export function VehicleScreen() {
  const { vehicle = "", station = "" } = useParams();
  const loaded = useQuery({
    queryKey: ["vehicle", vehicle],
    queryFn: () => answer(api.GET("/api/vehicles/{vehicle}/", { params: { path: { vehicle } } })),
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (loaded.isError)
    return (
      <Notice title="There is no such vehicle">
        It is not there, or it belongs to a workshop you are not in.
      </Notice>
    );
  if (!loaded.data) {
    return (
      <>
        <TopBar />
        <Box role="status" aria-label="Loading" />
      </>
    );
  }
  const { revision, role } = loaded.data;
  const stored = revision.document as unknown as DesignDocument;
  const draft = readDraft(vehicle);
  const opened = draft
    ? { document: draft.document, base: draft.base }
    : { document: stored, base: revision.number };
  return (
    <Workbench
      key={vehicle}
      vehicle={vehicle}
      workshop={loaded.data.workshop}
      station={station}
      stored={stored}
      first={{ number: opened.base, saved_at: revision.saved_at }}
      document={opened.document}
      readOnly={role === "viewer"}
    />
  );
}
