import { Box } from "@chakra-ui/react";
import { Link } from "react-router";
import type { LoadedPart, LoadRow } from "../../api/client";
import { usePlace } from "../../document/context";
import { Field } from "../../document/Field";
import { useUnits } from "../../ui/fields/units";
import { StandingMark } from "../../ui/StandingMark";
import { Helps } from "./Helps";
import { against, percent, STANDS } from "./words";

/** All that is checked of one part: what it has to stand against what it does, and what would settle the rest. */
export function PartRows({ part }: { part: LoadedPart }) {
  return (
    <Box data-part-rows={part.title}>
      <Box as="h2" fontSize="lg" fontWeight="700" _firstLetter={{ textTransform: "uppercase" }}>
        {part.title}
      </Box>
      {part.rows.map((row) => (
        <Row key={`${row.check} ${row.member} ${row.moment}`} row={row} />
      ))}
    </Box>
  );
}

function Row({ row }: { row: LoadRow }) {
  const units = useUnits();
  return (
    <Box borderTopWidth="1px" borderColor="line" py="2" data-check={row.check} data-state={row.state}>
      <Box display="flex" gap="2" alignItems="center">
        <StandingMark standing={STANDS[row.state]} />
        <Box flex="1" fontWeight="600" _firstLetter={{ textTransform: "uppercase" }}>
          {row.title}
          {row.member && `, ${row.part}`}
        </Box>
        <Box fontFamily="mono" fontWeight="700" fontSize="lg">
          {row.use === null ? (row.state === "over" ? "over" : "–") : percent(row.use)}
        </Box>
      </Box>
      <Box fontFamily="mono" fontSize="13.5px">
        {against(units, row)}
        {row.moment && ` · ${row.moment}`}
      </Box>
      {row.assumed.length > 0 && <Small>{`Assumed: ${row.assumed.join(", ")}.`}</Small>}
      {row.remarks.map((remark) => (
        <Small key={remark}>{`${remark[0]?.toUpperCase()}${remark.slice(1)}.`}</Small>
      ))}
      {row.needs.length > 0 && <Needs row={row} />}
      {(row.state === "near" || row.state === "over") && <Helps row={row} />}
    </Box>
  );
}

/** What would settle a row, to be typed here, or in Fit where it belongs. */
function Needs({ row }: { row: LoadRow }) {
  const { vehicle } = usePlace();
  return (
    <Box mt="1" data-needs>
      <Small>Not known. This would settle it:</Small>
      <Box display="grid" gap="2" gridTemplateColumns="repeat(auto-fill, minmax(130px, 1fr))">
        {row.needs.map((need) =>
          need.dimension ? (
            <Field key={need.path} path={need.path} label={need.words} dimension={need.dimension} optional />
          ) : (
            <Link key={need.path} to={`/vehicles/${vehicle}/fit`}>{`${need.words}, in Fit`}</Link>
          ),
        )}
      </Box>
    </Box>
  );
}

const Small = ({ children }: { children: string }) => (
  <Box fontSize="12.5px" color="ink.second">
    {children}
  </Box>
);
