import { Box, Flex, Input } from "@chakra-ui/react";
import { useState } from "react";
import type { PartsShown } from "../../api/client";
import { useDocument } from "../../document/context";
import type { BookOf } from "../../document/useBook";
import { money } from "../../ui/money";
import { StandingMark } from "../../ui/StandingMark";

interface Props {
  shown: PartsShown;
  book: BookOf;
  readOnly: boolean;
}

/** Spent, still to spend, and how that stands to the budget; the largest figures of the station. */
export function Money({ shown, book, readOnly }: Props) {
  const { spent, to_spend, budget } = shown;
  const whole = spent + to_spend;
  const over = budget !== null && whole > budget;
  return (
    <Flex gap="6" mt="2" mb="2" align="flex-end" wrap="wrap" data-money>
      <Sum words="spent" amount={spent} />
      <Sum words="still to spend" amount={to_spend} />
      <Box>
        <Box fontSize="sm" color="ink.second">
          in all
        </Box>
        <Flex align="center" gap="2">
          {budget !== null && <StandingMark standing={over ? "misses" : "holds"} size={17} />}
          <Box fontFamily="mono" fontSize="28px" fontWeight="700" lineHeight="1.1">
            {money(whole)}
          </Box>
          {budget !== null && (
            <Box fontSize="sm" data-budget={over ? "over" : "within"}>
              {over
                ? `over the budget of ${money(budget)} by ${money(whole - budget)}`
                : `of ${money(budget)}`}
            </Box>
          )}
        </Flex>
      </Box>
      <Budget book={book} readOnly={readOnly} />
      {shown.unpriced.length > 0 && (
        <Box fontSize="sm" color="ink.second" title={shown.unpriced.join("; ")} data-unpriced>
          {`${shown.unpriced.length} without a price`}
        </Box>
      )}
    </Flex>
  );
}

function Sum({ words, amount }: { words: string; amount: number }) {
  return (
    <Box>
      <Box fontSize="sm" color="ink.second">
        {words}
      </Box>
      <Box fontFamily="mono" fontSize="28px" fontWeight="700" lineHeight="1.1">
        {money(amount)}
      </Box>
    </Box>
  );
}

/** A sum where no target says what it may cost. */
function Budget({ book, readOnly }: Pick<Props, "book" | "readOnly">) {
  const { targets } = useDocument();
  const stored = book.book.budget === undefined ? "" : String(book.book.budget);
  const [text, setText] = useState<string | null>(null);
  if (targets?.some((target) => target.measure === "price")) return null;
  const commit = () => {
    if (text === null || text === stored) return setText(null);
    const budget = text.trim() ? text.trim() : undefined;
    void book.change((old) => ({ ...old, budget })).then((taken) => taken && setText(null));
  };
  return (
    <Box>
      <Box as="label" fontSize="sm" color="ink.second" display="block">
        budget
        <Input
          display="block"
          w="90px"
          h="30px"
          placeholder="none"
          value={text ?? stored}
          readOnly={readOnly}
          onChange={(event) => setText(event.target.value)}
          onBlur={commit}
          onKeyDown={(event) => event.key === "Enter" && commit()}
        />
      </Box>
      {book.trouble && (
        <Box role="alert" color="brick" fontSize="sm">
          {book.trouble}
        </Box>
      )}
    </Box>
  );
}
