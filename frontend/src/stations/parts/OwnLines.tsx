import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useState } from "react";
import { newId } from "../../document/newId";
import type { BookOf, OwnLine } from "../../document/useBook";
import { FRAME } from "../shared/frame";

const EMPTY = { words: "", number: "1", price: "", mass: "" };

/** As it is typed where it is no number: then the server says what would be right. */
function numberOf(text: string): number | string {
  const number = Number(text.replace(",", "."));
  return text.trim() === "" ? 1 : Number.isNaN(number) ? text.trim() : number;
}

/** Things that the design does not know of, such as the frame. */
export function OwnLines({ book, readOnly }: { book: BookOf; readOnly: boolean }) {
  const lines = book.book.lines ?? [];
  const [typed, setTyped] = useState(EMPTY);
  const put = (key: keyof typeof EMPTY) => (event: React.ChangeEvent<HTMLInputElement>) =>
    setTyped({ ...typed, [key]: event.target.value });
  const add = async () => {
    const line: OwnLine = {
      id: newId(),
      words: typed.words.trim(),
      number: numberOf(typed.number),
    };
    if (typed.price.trim()) line.price = typed.price.trim();
    if (typed.mass.trim()) line.mass = typed.mass.trim();
    if (await book.change((old) => ({ ...old, lines: [...(old.lines ?? []), line] }))) setTyped(EMPTY);
  };
  const drop = (id: string) =>
    void book.change((old) => ({ ...old, lines: (old.lines ?? []).filter((line) => line.id !== id) }));
  return (
    <Box {...FRAME} data-own-lines>
      <Box as="h2" fontSize="lg" fontWeight="700">
        What else is needed
      </Box>
      {lines.map((line) => (
        <Flex key={line.id} gap="2" fontSize="14px" align="baseline">
          <Box flex="1">{line.words}</Box>
          <Box fontFamily="mono">{line.number ?? 1}</Box>
          {!readOnly && (
            <button
              type="button"
              className="quiet"
              aria-label={`Take out ${line.words}`}
              onClick={() => drop(line.id)}
            >
              take out
            </button>
          )}
        </Flex>
      ))}
      {!readOnly && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void add();
          }}
        >
          <Flex gap="1" mt="1" wrap="wrap">
            <Input
              aria-label="What"
              placeholder="what, such as the frame"
              value={typed.words}
              onChange={put("words")}
              flex="1 1 100%"
            />
            <Input
              aria-label="Number"
              placeholder="number"
              w="64px"
              value={typed.number}
              onChange={put("number")}
            />
            <Input
              aria-label="Price of one"
              placeholder="price"
              w="80px"
              value={typed.price}
              onChange={put("price")}
            />
            <Input
              aria-label="Mass of one"
              placeholder="mass"
              w="90px"
              value={typed.mass}
              onChange={put("mass")}
            />
            <Button size="xs" type="submit" disabled={!typed.words.trim()}>
              Add
            </Button>
          </Flex>
        </form>
      )}
      {book.trouble && (
        <Box role="alert" color="brick" fontSize="sm">
          {book.trouble}
        </Box>
      )}
    </Box>
  );
}
