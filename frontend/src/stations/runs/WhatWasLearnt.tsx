import { Box, Button, Flex } from "@chakra-ui/react";
import type { Learnt } from "../../api/client";
import { type Units, useUnits } from "../../ui/fields/units";
import { Shown } from "./Shown";
import { valueText } from "./words";

type Unknown = Learnt["unknowns"][number];

interface Props {
  learnt: Learnt;
  readOnly: boolean;
  using: boolean;
  onUse: () => void;
}

const WIDTH = 132;
const SPRUCE = "var(--chakra-colors-spruce)";
const INK = "var(--chakra-colors-ink)";
const LINE = "var(--chakra-colors-line)";

/** What was guessed, and what is known of it now: both doubts on one scale. */
export function WhatWasLearnt({ learnt, readOnly, using, onUse }: Props) {
  const units = useUnits();
  const widest = Math.max(
    0.05,
    ...learnt.unknowns.map((unknown) => Math.abs(unknown.factor - 1) + unknown.prior),
  );
  const rows = [...learnt.unknowns].sort((a, b) => b.told - a.told);
  const useful = Object.keys(learnt.values).length;
  return (
    <Shown
      title="What was guessed, and what is known now"
      table={{
        heads: ["what", "guessed", "now", "doubt before", "doubt now", "in words"],
        rows: rows.map((row) => [
          row.name,
          toldOf(units, row, row.before, 1),
          toldOf(units, row, row.value, row.factor),
          percent(row.prior),
          percent(row.sd),
          row.words,
        ]),
      }}
    >
      <Box as="ul" listStyleType="none" p="0" m="0" data-unknowns>
        {rows.map((row) => (
          <Flex
            as="li"
            key={`${row.name} ${row.path}`}
            gap="2"
            py="3px"
            borderTopWidth="1px"
            borderColor="line"
            align="center"
            data-unknown={row.path}
            data-silent={row.silent || undefined}
          >
            <Box flex="1" minW="0" lineHeight="1.25">
              <Box fontSize="14px">{row.name}</Box>
              <Box fontSize="12.5px" color="ink.second">
                {row.words}
              </Box>
            </Box>
            <Both one={row} widest={widest} />
            <Box fontFamily="mono" fontSize="13px" w="104px" textAlign="right" lineHeight="1.25">
              <b>{toldOf(units, row, row.value, row.factor)}</b>
              <Box color="ink.second" fontSize="12px">
                {`± ${percent(row.sd)}`}
              </Box>
            </Box>
          </Flex>
        ))}
      </Box>
      <Box fontSize="12.5px" color="ink.second" mt="1">
        Pale: what was guessed with its doubt; dark: what is known now. In the middle is the guess.
      </Box>
      {learnt.tied.map((words) => (
        <Box key={words} fontSize="13px" mt="1" data-tied>
          {`${words[0]?.toUpperCase()}${words.slice(1)}.`}
        </Box>
      ))}
      {!readOnly && (
        <Flex mt="2" gap="3" align="center" wrap="wrap">
          <Button variant="solid" disabled={useful === 0 || using} onClick={onUse} data-use>
            Use in the design
          </Button>
          <Box fontSize="13px" color="ink.second">
            {useful
              ? `${useful} values, marked measured, with how sure they are. Undo takes them back.`
              : "These runs tell nothing that the design does not hold already."}
          </Box>
        </Flex>
      )}
    </Shown>
  );
}

/** Its value; of what stands for several how many times larger it is than guessed. */
const toldOf = (units: Units, one: Unknown, si: number, factor: number) =>
  one.dimension ? valueText(units, one.dimension, si) : `× ${factor.toFixed(2)}`;

const percent = (share: number) => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;

/** Prior and present doubt as two bars, one standard deviation to each side. */
function Both({ one, widest }: { one: Unknown; widest: number }) {
  const x = (share: number) => WIDTH / 2 + ((WIDTH / 2 - 2) * share) / widest;
  const bar = (middle: number, sd: number) => `M ${x(middle - sd)} 9 H ${x(middle + sd)}`;
  return (
    <svg width={WIDTH} height={18} aria-hidden="true" style={{ flex: "none" }}>
      <path d={bar(0, one.prior)} stroke={LINE} strokeWidth={11} />
      <path d={`M ${x(0)} 1 V 17`} stroke="var(--chakra-colors-ink-second)" strokeDasharray="2 2" />
      <path d={bar(one.factor - 1, one.sd)} stroke={SPRUCE} strokeWidth={6} />
      <path d={`M ${x(one.factor - 1)} 3 V 15`} stroke={INK} strokeWidth={2} />
    </svg>
  );
}
