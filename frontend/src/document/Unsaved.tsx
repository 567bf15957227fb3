import { Box, Button, Flex } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";
import { moment } from "../ui/when";
import type { DesignDocument } from "./document";
import { dropDraft, type Left } from "./draft";
import { merge } from "./merge";

/** A line over the stations with what can be done about it. */
export function Strip({ children }: { children: ReactNode }) {
  return (
    <Flex role="status" bg="copper.wash" px="4" py="1" gap="3" align="center" wrap="wrap" data-strip>
      {children}
    </Flex>
  );
}

/** What was typed in tabs that are gone, and never saved: to be taken up or dropped, and there until then. */
export function LeftBehind({
  account,
  vehicle,
  left,
  present,
  onTake,
}: {
  account: string;
  vehicle: string;
  left: Left[];
  present: DesignDocument;
  onTake: (document: DesignDocument) => void;
}) {
  const [open, setOpen] = useState(left);
  const drop = (draft: Left) => {
    dropDraft(account, vehicle, draft.tab);
    setOpen((old) => old.filter((other) => other !== draft));
  };
  return open.map((draft) => (
    <Strip key={draft.tab}>
      <Box>Typed in another tab at {moment(draft.at)}, and not saved.</Box>
      <Button
        size="xs"
        onClick={() => {
          onTake(merge(draft.from, draft.document, present).document);
          drop(draft);
        }}
      >
        Take it up (Undo takes it back)
      </Button>
      <Button size="xs" variant="outline" onClick={() => drop(draft)}>
        Drop it
      </Button>
    </Strip>
  ));
}
