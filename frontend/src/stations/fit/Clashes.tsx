import { Box, Flex } from "@chakra-ui/react";
import { memo } from "react";
import type { Clash, OnPlate } from "../../api/client";
import type { Selected } from "../../document/selected";
import { StandingMark } from "../../ui/StandingMark";
import { FRAME } from "../shared/frame";
import { selectionAt } from "./selection";

interface Props {
  fit: OnPlate;
  chosen: number | null;
  onChoose: (number: number | null) => void;
  onSelect: (at: Selected) => void;
}

/** What does not go together, the worst first, with the numbers of the marks on the plan. */
export const Clashes = memo(function Clashes({ fit, chosen, onChoose, onSelect }: Props) {
  const count = fit.clashes.filter((clash) => clash.level === "clash").length;
  const pick = (clash: Clash, number: number) => {
    onChoose(number);
    const about = selectionAt(fit, clash);
    if (about) onSelect(about);
  };
  return (
    <Box {...FRAME} data-clashes={count}>
      <Flex gap="2" align="baseline" mb="1">
        <StandingMark standing={count ? "misses" : "holds"} />
        <Box as="h2" fontSize="xl" fontWeight="700">
          {count === 0 ? "Goes together" : count === 1 ? "1 clash" : `${count} clashes`}
        </Box>
      </Flex>
      {fit.clashes.length === 0 && (
        <Box fontSize="sm" color="ink.second">
          As far as its sizes say. What is not given is not looked at: diameters of shafts, frame, stacks.
        </Box>
      )}
      <Box as="ol" listStyleType="none" m="0" p="0" maxH="260px" overflowY="auto">
        {fit.clashes.map((clash, number) => (
          <Box as="li" key={`${clash.path} ${clash.text}`} borderTopWidth="1px" borderColor="line">
            <button
              type="button"
              className="row"
              aria-pressed={chosen === number}
              onClick={() => pick(clash, number)}
              style={{ display: "flex", gap: "8px", textAlign: "left", width: "100%", padding: "6px 2px" }}
            >
              <Box
                fontFamily="mono"
                color={clash.level === "clash" ? "brick" : "ink.second"}
                fontWeight="700"
              >
                {clash.at ? number + 1 : "·"}
              </Box>
              <Box fontSize="13.5px" lineHeight="1.35">
                {clash.level === "mind" && (
                  <Box as="span" color="ink.second">
                    to mind:{" "}
                  </Box>
                )}
                {clash.text}
              </Box>
            </button>
          </Box>
        ))}
      </Box>
    </Box>
  );
});
