import { Box, Flex } from "@chakra-ui/react";
import type { BuildShown } from "../../api/client";

interface Props {
  shown: BuildShown;
  waiting: number;
  onChoose: (step: string) => void;
}

/** Everything left loose so far, always in sight; each leads to the step that closes it. */
export function Ledger({ shown, waiting, onChoose }: Props) {
  const { loose, done, steps } = shown;
  return (
    <Box
      as="section"
      aria-label="Loose"
      position="sticky"
      top="0"
      zIndex="2"
      bg={loose.length ? "copper.wash" : "panel"}
      borderWidth="1px"
      borderColor={loose.length ? "copper" : "line"}
      borderRadius="3px"
      px="3"
      py="2"
      data-ledger={loose.length}
      data-screen-only
    >
      <Flex gap="3" align="baseline" wrap="wrap">
        <Box fontWeight="700" aria-live="polite">
          {loose.length === 0 ? "Nothing is loose" : `${loose.length} loose:`}
        </Box>
        <Flex gap="2" rowGap="0" wrap="wrap" flex="1" minW="0">
          {loose.map((one) => (
            <button key={one.id} type="button" className="loose" onClick={() => onChoose(one.closed_by)}>
              {one.words}
            </button>
          ))}
        </Flex>
        <Box fontFamily="mono" fontSize="sm" color="ink.second" data-done={done}>
          {`${done} of ${steps.length}`}
        </Box>
        {waiting > 0 && (
          <Box fontSize="sm" role="status" data-waiting={waiting}>
            {waiting === 1 ? "1 tick is kept here" : `${waiting} ticks are kept here`} until there is a
            connection
          </Box>
        )}
      </Flex>
    </Box>
  );
}
