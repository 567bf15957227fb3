import { Box, Flex } from "@chakra-ui/react";
import { useDocument, useEdit } from "../../document/context";
import { at } from "../../document/document";
import { FRAME } from "../shared/frame";

const SCHOOLS = [
  [
    "build.locking",
    "Screws are kept by",
    [
      ["locker", "locker, cures a day"],
      ["lock nuts", "lock nuts"],
    ],
  ],
  [
    "build.backlash",
    "Gear play is set by",
    [
      ["paper", "a paper strip"],
      ["rim", "feel at the rim"],
      ["ear", "ear"],
    ],
  ],
  [
    "build.tension",
    "Belt tension is judged by",
    [
      ["push", "pushing"],
      ["pluck", "plucking"],
      ["twist", "twisting"],
    ],
  ],
] as const;

/** In which of the usual ways this vehicle is built; each has its own numbers, and none is wrong. */
export function Schools({ readOnly }: { readOnly: boolean }) {
  const document = useDocument();
  const { set } = useEdit();
  return (
    <Box {...FRAME} data-schools data-screen-only>
      <Flex gap="4" wrap="wrap">
        {SCHOOLS.map(([path, words, choices]) => (
          <Box as="label" key={path} fontSize="sm">
            {words}
            <Box>
              <select
                className="plain"
                value={String(at(document, path) ?? choices[0][0])}
                disabled={readOnly}
                onChange={(event) => set(path, event.target.value)}
              >
                {choices.map(([value, name]) => (
                  <option key={value} value={value}>
                    {name}
                  </option>
                ))}
              </select>
            </Box>
          </Box>
        ))}
      </Flex>
    </Box>
  );
}
