import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";
import type { PartLine } from "../../api/client";
import { money } from "../../ui/money";
import { moment } from "../../ui/when";
import { FRAME } from "../shared/frame";
import type { Say } from "./useSaying";
import { days } from "./words";

/** All of one line: what it is matched with, what the nearest lack, who has it, what to do to it, its order. */
export function LinePanel({ line, onSay }: { line: PartLine; onSay: Say | null }) {
  return (
    <Box {...FRAME} data-line-panel={line.key}>
      <Box
        as="h2"
        fontSize="lg"
        fontWeight="700"
        lineHeight="1.25"
        _firstLetter={{ textTransform: "uppercase" }}
      >
        {line.words}
      </Box>
      <Box color="ink.second" fontSize="sm">{`${line.number} needed, ${line.where}`}</Box>
      <Matched line={line} />
      {line.make.map((making) => (
        <Box key={making.words} mt="2" data-make>
          <b>To do: </b>
          {making.words}.
          <Box fontSize="12.5px" borderLeftWidth="3px" borderColor="ochre" pl="2" mt="1" data-caution>
            {making.caution}
          </Box>
        </Box>
      ))}
      {onSay && (line.to_buy > 0 || line.state === "ordered") && <Order line={line} onSay={onSay} />}
      {line.by && line.at && (
        <Box
          fontSize="sm"
          color="ink.second"
          mt="2"
          data-who
        >{`${line.state}: ${line.by}, ${moment(line.at)}`}</Box>
      )}
    </Box>
  );
}

function Matched({ line }: { line: PartLine }) {
  return (
    <Box mt="2" fontSize="14px">
      {line.name ? (
        <Box>
          {`From the bin: ${line.name}, ${line.owned} there`}
          {line.each !== null && `, ${money(line.each)} each`}
          {line.mass !== null && `, ${(1000 * line.mass).toFixed(0)} g in all`}.
        </Box>
      ) : (
        line.kind !== "own" && (
          <Box>
            Nothing in the bin is this. <Link to="/parts">Open the bin</Link>
          </Box>
        )
      )}
      {line.note && <Box color="ink.second">{line.note}</Box>}
      {line.taken.map((by) => (
        <Box key={by.vehicle} data-taken>{`${by.vehicle} has ${by.number}.`}</Box>
      ))}
      {line.nearest.length > 0 && (
        <Box mt="1">
          Nearest:
          <Box as="ul" pl="4" listStyleType="disc">
            {line.nearest.map((near) => (
              <li key={near.id} data-near>
                {`${near.name}: ${near.differs || "nearly the same"}${near.owned ? `, ${near.owned} owned` : ""}`}
              </li>
            ))}
          </Box>
        </Box>
      )}
      {line.which && <Box mt="1">{line.which}</Box>}
      {line.to_buy > 0 && line.state === "needed" && (
        <Box mt="1">{`${line.to_buy} to buy; an order takes ${days(line.lead_days, line.assumed_lead)}.`}</Box>
      )}
    </Box>
  );
}

/** When it is expected, and what was paid for all of it. */
function Order({ line, onSay }: { line: PartLine; onSay: Say }) {
  const [expected, setExpected] = useState(line.expected ?? "");
  const [paid, setPaid] = useState(
    line.paid === null ? (line.price === null ? "" : money(line.price)) : money(line.paid),
  );
  const amount = paid.trim() === "" ? null : Number(paid.replace(",", "."));
  const wrong = amount !== null && !(amount >= 0);
  const said = { expected: expected || null, paid: wrong ? null : amount };
  return (
    <Box mt="2" borderTopWidth="1px" borderColor="line" pt="2">
      <Flex gap="2">
        <Box as="label" fontSize="sm" flex="1">
          expected
          <Input type="date" value={expected} onChange={(event) => setExpected(event.target.value)} />
        </Box>
        <Box as="label" fontSize="sm" w="110px">
          paid for all
          <Input
            inputMode="decimal"
            value={paid}
            aria-invalid={wrong || undefined}
            onChange={(event) => setPaid(event.target.value)}
          />
        </Box>
      </Flex>
      {wrong && (
        <Box role="alert" color="brick" fontSize="sm">{`“${paid}” given, give a number, such as 31.50`}</Box>
      )}
      <Flex gap="1" mt="2">
        <Button
          size="xs"
          variant="solid"
          disabled={wrong}
          onClick={() => onSay(line, { state: "ordered", ...said })}
        >
          Ordered
        </Button>
        <Button size="xs" disabled={wrong} onClick={() => onSay(line, { state: "here", ...said })}>
          It is here
        </Button>
      </Flex>
    </Box>
  );
}
