import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { useNavigate } from "react-router";
import { useFigures, usePlace } from "../../document/context";

/** Every value that was only assumed, the one that matters most first. */
export function CheckFirst() {
  const { uncertainties } = useFigures();
  const [open, setOpen] = useState(false);
  const guesses = uncertainties?.guesses ?? [];
  const [first] = guesses;
  if (!first) return null;
  return (
    <Box
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="3px"
      px="3"
      py="1"
      mb="2"
      fontSize="sm"
      data-check-first
      data-screen-only
    >
      <Flex columnGap="2" align="baseline" wrap="wrap">
        <button type="button" className="linkish" aria-expanded={open} onClick={() => setOpen(!open)}>
          {guesses.length === 1 ? "1 value is assumed" : `${guesses.length} values are assumed`}
        </button>
        <Box as="span" color="ink.second">
          check first {first.name}
          {first.share >= 0.005 && `: ${percent(first.share)} of the doubt in ${first.measure}`}
        </Box>
      </Flex>
      {open && <List />}
    </Box>
  );
}

function List() {
  const { uncertainties } = useFigures();
  const go = useGo();
  return (
    <Box as="ol" listStyleType="none" p="0" mt="1" maxH="240px" overflowY="auto">
      {uncertainties?.guesses.map((guess) => (
        <Flex
          as="li"
          key={guess.path}
          gap="3"
          py="2px"
          borderTopWidth="1px"
          borderColor="line"
          data-guess={guess.path}
        >
          <Box flex="1">
            <button type="button" className="linkish" onClick={() => go(guess.path)}>
              {guess.name}
            </button>
            {guess.note && (
              <Box as="span" color="ink.second">
                , {guess.note}
              </Box>
            )}
          </Box>
          <Box color="ink.second" whiteSpace="nowrap">
            {guess.share >= 0.005
              ? `${percent(guess.share)} of the doubt in ${guess.measure}`
              : "hardly matters"}
          </Box>
        </Flex>
      ))}
    </Box>
  );
}

const percent = (share: number) => `${Math.round(100 * share)} %`;

/** To the place where a value is typed: the vehicle's in the Brief, those of the line beside its drawing. */
function useGo(): (path: string) => void {
  const { vehicle } = usePlace();
  const navigate = useNavigate();
  return (path) =>
    path.startsWith("drive.")
      ? navigate(`/vehicles/${vehicle}/line?at=${encodeURIComponent(path)}`)
      : navigate(`/vehicles/${vehicle}/brief?at=${encodeURIComponent(path)}`);
}
