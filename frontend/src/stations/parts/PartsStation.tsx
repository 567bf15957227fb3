import { Box, Button, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { PartLine, PartsShown } from "../../api/client";
import { useEdit, usePartsAnswer, usePlace } from "../../document/context";
import { useBook } from "../../document/useBook";
import { FRAME } from "../shared/frame";
import { Files } from "./Files";
import { LinePanel } from "./LinePanel";
import { Mass } from "./Mass";
import { Money } from "./Money";
import { OwnLines } from "./OwnLines";
import { PartLines } from "./PartLines";
import { Savings } from "./Savings";
import { type Say, useSaying } from "./useSaying";

/** What the design needs: here, to buy, to make; what it costs and weighs. */
export function PartsStation() {
  const parts = usePartsAnswer();
  if (!parts) return <Box role="status" aria-label="Loading" h="480px" />;
  return <Shown shown={parts.shown} />;
}

function Shown({ shown }: { shown: PartsShown }) {
  const { vehicle } = usePlace();
  const { readOnly } = useEdit();
  const book = useBook(vehicle);
  const [chosen, setChosen] = useState("");
  const saying = useSaying(vehicle);
  const lines = shown.lines.map(saying.with);
  // What something was said of stays in sight.
  const say: Say = (line, said) => {
    setChosen(line.key);
    saying.say(line, said);
  };
  const line = lines.find((line) => line.key === chosen) ?? firstToBuy(lines);
  return (
    <Box
      display="grid"
      gap="2"
      alignItems="start"
      gridTemplateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 336px" }}
      _print={{ display: "block" }}
      data-parts-list
    >
      <Box {...FRAME} minW="0">
        <Box as="h2" fontSize="lg" fontWeight="700" lineHeight="1.3" data-sentence>
          {shown.sentence}
        </Box>
        <Money shown={shown} book={book} readOnly={readOnly} />
        {saying.trouble && (
          <Box role="alert" color="brick" data-trouble>
            {saying.trouble}
          </Box>
        )}
        <PartLines
          lines={lines}
          chosen={line?.key ?? ""}
          onChoose={setChosen}
          onSay={readOnly ? null : say}
        />
        <Flex gap="1" mt="2" wrap="wrap" data-screen-only>
          <Files vehicle={vehicle} readOnly={readOnly} />
          <Button size="xs" onClick={() => window.print()}>
            Print
          </Button>
        </Flex>
      </Box>
      <Box display="grid" gap="2" gridTemplateColumns="minmax(0, 1fr)" data-screen-only>
        {line && <LinePanel key={line.key} line={line} onSay={readOnly ? null : say} />}
        {shown.savings.length > 0 && <Savings savings={shown.savings} readOnly={readOnly} />}
        <Mass mass={shown.mass} book={book} readOnly={readOnly} />
        <OwnLines book={book} readOnly={readOnly} />
      </Box>
    </Box>
  );
}

const firstToBuy = (lines: PartLine[]) =>
  lines.find((line) => line.to_buy > 0 && line.state === "needed") ?? lines[0];
