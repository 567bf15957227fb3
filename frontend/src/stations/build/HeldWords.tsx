import { Box } from "@chakra-ui/react";
import type { HeldBack } from "../../api/client";
import { moment } from "../../ui/when";

interface Props {
  reasons: HeldBack["reasons"];
  /** Whether a tick was taken back for them. */
  taken?: boolean;
  onChoose: (step: string) => void;
}

const MOST = 4;

/** Why a step cannot be done yet, each leading to the step that would help. */
export function HeldWords({ reasons, taken, onChoose }: Props) {
  if (reasons.length === 0) return null;
  const more = reasons.length - MOST;
  return (
    <Box
      role={taken ? "alert" : "note"}
      borderLeftWidth="4px"
      borderColor="brick"
      pl="3"
      mt="3"
      data-held={taken ? "taken" : ""}
    >
      <Box fontWeight="700">{taken ? "The tick was taken back:" : "Not yet:"}</Box>
      {reasons.slice(0, MOST).map((reason) => (
        <Box key={reason.words}>
          {reason.step ? (
            <button type="button" className="link" onClick={() => onChoose(reason.step)}>
              {reason.words}
            </button>
          ) : (
            reason.words
          )}
          {reason.until && <b>{` Wait until ${moment(reason.until)}.`}</b>}
        </Box>
      ))}
      {more > 0 && <Box color="ink.second">{`and ${more} more`}</Box>}
    </Box>
  );
}
