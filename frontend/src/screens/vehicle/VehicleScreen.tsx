import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { open } from "../../document/opening";
import { TopBar, useBar } from "../../ui/frame/TopBar";
import { Unavailable } from "../../ui/frame/Unavailable";
import { Workbench } from "./Workbench";

/** Loads a vehicle, with what was typed here and never saved, and opens it. */
export function VehicleScreen() {
  const { vehicle = "", station = "" } = useParams();
  const account = useBar().username;
  const { data, failureReason } = useQuery({
    queryKey: ["vehicle", account, vehicle],
    queryFn: () => open(account, vehicle),
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (!data) {
    return failureReason ? (
      <Unavailable error={failureReason} title="There is no such vehicle">
        It is not there, or it belongs to a workshop you are not in.
      </Unavailable>
    ) : (
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
