import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { RefusedError } from "../../api/client";
import { open } from "../../document/opening";
import { Notice } from "../../ui/frame/Notice";
import { TopBar, useBar } from "../../ui/frame/TopBar";
import { Workbench } from "./Workbench";

/** Loads a vehicle, with what was typed here and never saved, and opens it. */
export function VehicleScreen() {
  const { vehicle = "", station = "" } = useParams();
  const account = useBar().username;
  const { data, error } = useQuery({
    queryKey: ["vehicle", account, vehicle],
    queryFn: () => open(account, vehicle),
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (error instanceof RefusedError && error.status === 404)
    return (
      <Notice title="There is no such vehicle">
        It is not there, or it belongs to a workshop you are not in.
      </Notice>
    );
  if (error)
    return <Notice title="The vehicle cannot be opened now">{error.message} Try again in a moment.</Notice>;
  if (!data) {
    return (
      <>
        <TopBar />
        <Box role="status" aria-label="Loading" />
      </>
    );
  }
  const { workshop, role, scratch, tab, stored, draft, left } = data;
  return (
    <Workbench
      key={vehicle}
      owner={{ account, vehicle, tab }}
      workshop={workshop}
      station={station}
      stored={stored}
      first={draft ? { ...stored, number: draft.base, document: draft.from } : stored}
      document={draft?.document ?? stored.document}
      typedAt={draft?.at ?? null}
      left={left}
      scratch={scratch}
      readOnly={role === "viewer"}
    />
  );
}
