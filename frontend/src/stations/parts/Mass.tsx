import { Box, Button, Flex } from "@chakra-ui/react";
import type { PartsShown } from "../../api/client";
import { useEdit } from "../../document/context";
import type { BookOf } from "../../document/useBook";
import { QuantityField } from "../../ui/fields/QuantityField";
import { show, useUnits } from "../../ui/fields/units";
import { FRAME } from "../shared/frame";

interface Props {
  mass: PartsShown["mass"];
  book: BookOf;
  readOnly: boolean;
}

/** The sum of known masses beside what was weighed and what the design has. */
export function Mass({ mass, book, readOnly }: Props) {
  const units = useUnits();
  const { set } = useEdit();
  const told = (kg: number) => Object.values(show(units, "mass", kg)).join(" ");
  const take = (value: string, note: string) => set("vehicle.mass", { value, origin: "measured", note });
  return (
    <Box {...FRAME} data-mass>
      <Box as="h2" fontSize="lg" fontWeight="700">
        Mass
      </Box>
      {mass.words && (
        <Box role="note" bg="copper.wash" px="2" py="1" mt="1" data-mass-words>
          {mass.words}
        </Box>
      )}
      <Box as="dl" display="grid" gridTemplateColumns="1fr auto" columnGap="3" fontSize="14px" mt="1">
        <dt>parts of which it is known</dt>
        <Box as="dd" fontFamily="mono" textAlign="right">
          {told(mass.known)}
        </Box>
        <dt>all-up in the design</dt>
        <Box as="dd" fontFamily="mono" textAlign="right">
          {told(mass.design)}
        </Box>
      </Box>
      <Flex gap="2" align="flex-end" mt="1">
        <Box flex="1">
          <QuantityField
            label="weighed, all-up"
            dimension="mass"
            value={book.book.weighed}
            optional
            readOnly={readOnly}
            onChange={(weighed) => void book.change((old) => ({ ...old, weighed }))}
          />
        </Box>
        {mass.weighed !== null && mass.words && !readOnly && (
          <Button size="xs" mb="1" onClick={() => take(String(book.book.weighed), "weighed as built")}>
            Put into the design
          </Button>
        )}
      </Flex>
      {mass.unknown.length > 0 && (
        <Box fontSize="12.5px" color="ink.second" mt="1" data-unknown-mass>
          {`Not known: ${mass.unknown.join("; ")}.`}
        </Box>
      )}
    </Box>
  );
}
