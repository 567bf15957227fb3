import { Flex } from "@chakra-ui/react";
import type { OnPlate } from "../../api/client";
import { useEdit } from "../../document/context";
import { StandingMark } from "../../ui/StandingMark";
import { selectionOf } from "./selection";

interface Props {
  plates: OnPlate[];
  chosen: OnPlate;
}

/** Which plate the plan shows: what turns the axis leads to the next one. */
export function PlateChoice({ plates, chosen }: Props) {
  const { select } = useEdit();
  return (
    <Flex px="3" pb="2" gap="4" wrap="wrap" fontSize="sm" role="group" aria-label="Plates" data-plates>
      {plates.map((plate) => {
        const [first] = plate.plan.shafts;
        const clashes = plate.clashes.some((clash) => clash.level === "clash");
        return (
          <button
            key={plate.behind}
            type="button"
            className="tab"
            aria-pressed={plate.behind === chosen.behind}
            onClick={() => first && select(selectionOf(plate, first))}
          >
            <StandingMark standing={clashes ? "misses" : "holds"} /> {plate.name}
          </button>
        );
      })}
    </Flex>
  );
}
