import { Box, Flex } from "@chakra-ui/react";
import { queryOptions, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, type Gauge, troubleText, type VehicleCard } from "../../api/client";
import { useLastRuns } from "../../document/useLastRuns";
import { MiniLine } from "../../drawing/MiniLine";
import { ratioText, show, useUnits } from "../../ui/fields/units";
import { gaugeLabel } from "../../ui/readout/Readout";
import { StandingMark } from "../../ui/StandingMark";
import { counted } from "../../words/counted";
import { offText } from "../../words/runs";
import { CardMenu } from "./CardMenu";

/** How the cards of a workshop are asked for; they change where its vehicles do. */
export const cardsQuery = (workshop: string) =>
  queryOptions({
    queryKey: ["vehicles", workshop, "cards"],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/cards/", { params: { path: { workshop } } })),
    // Several cards ask while they are painted.
    staleTime: 2000,
  });

/** A vehicle with its line in miniature and how its targets stand. */
export function VehicleCardView({ vehicle, mayEdit }: { vehicle: VehicleCard; mayEdit: boolean }) {
  const cards = useQuery(cardsQuery(vehicle.workshop));
  const shown = cards.data?.find((row) => row.vehicle === vehicle.id);
  const card = shown?.card;
  return (
    <Box
      as="article"
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="3px"
      p="3"
      position="relative"
      data-vehicle={vehicle.name}
    >
      <Flex justify="space-between" align="baseline" gap="3">
        <Box
          asChild
          fontWeight="700"
          fontSize="xl"
          _after={{ content: '""', position: "absolute", inset: 0 }}
        >
          <Link to={`/vehicles/${vehicle.id}/line`}>{vehicle.name}</Link>
        </Box>
        <Flex align="baseline" gap="2">
          {card && <Ratio ratio={card.ratio} />}
          <CardMenu vehicle={vehicle} mayEdit={mayEdit} />
        </Flex>
      </Flex>
      <Box minH="110px" my="1">
        {card && <MiniLine line={card.line} name={vehicle.name} />}
        {shown?.trouble && <Box color="brick">This design cannot be read: {shown.trouble}</Box>}
        {cards.isError && <Box color="brick">Its figures are missing: {troubleText(cards.error)}</Box>}
      </Box>
      {card && <TargetList gauges={card.gauges.filter((gauge) => gauge.target !== null)} />}
      <LastRun vehicle={vehicle} />
    </Box>
  );
}

/** The last run, and how far it was off its prediction. */
function LastRun({ vehicle }: { vehicle: VehicleCard }) {
  const runs = useLastRuns(vehicle.workshop);
  const last = runs.data?.find((run) => run.vehicle === vehicle.id);
  if (!last) return null;
  return (
    <Box fontSize="sm" color="ink.second" mt="1" data-last-run>
      {`${counted(last.count, "run")}, the last: ${last.words.toLowerCase()}`}
      {last.off !== null && `, off by ${offText(last.off)}`}
    </Box>
  );
}

function Ratio({ ratio }: { ratio: number }) {
  const units = useUnits();
  return (
    <Box fontFamily="mono" color="ink.second">
      {ratioText(units, ratio)}
    </Box>
  );
}

function TargetList({ gauges }: { gauges: Gauge[] }) {
  const units = useUnits();
  if (gauges.length === 0) return <Box color="ink.second">No targets yet.</Box>;
  return (
    <Box as="ul" listStyleType="none" p="0">
      {gauges.map((gauge) => {
        const { number, unit } = show(units, gauge.dimension, gauge.value);
        return (
          <Flex as="li" key={gauge.target} gap="2" align="center" fontSize="sm" py="1px">
            <StandingMark standing={gauge.standing} size={11} />
            <Box flex="1">{gaugeLabel(gauge, units)}</Box>
            <Box fontFamily="mono" whiteSpace="nowrap">
              <b>{number}</b> {unit}
            </Box>
            <Box color="ink.second" fontSize="xs" minW="9.5em" textAlign="right">
              {gauge.wanted}
            </Box>
          </Flex>
        );
      })}
    </Box>
  );
}
