import { Box, Heading } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useLocation } from "react-router";
import { answer, api, type Gauge, troubleText } from "../../api/client";
import { WorkingSheet } from "../../document/working/WorkingSheet";
import { MiniLine } from "../../drawing/MiniLine";
import { ratioText, useUnits } from "../../ui/fields/units";
import { TopBar } from "../../ui/frame/TopBar";
import { Unavailable } from "../../ui/frame/Unavailable";
import { useTitle } from "../../ui/frame/useTitle";
import { gaugeLabel, Readout } from "../../ui/readout/Readout";
import { day } from "../../ui/when";

/** A design that somebody has shared. The code is behind the "#", which no log is sent. */
export default function SharedScreen() {
  const code = useLocation().hash.slice(1);
  const units = useUnits();
  const [asked, setAsked] = useState<Pick<Gauge, "measure" | "at"> | null>(null);
  const shared = useQuery({
    queryKey: ["shared", code],
    queryFn: () => answer(api.POST("/api/shared/", { body: { code } })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  useTitle(shared.data?.name ?? "");
  if (!shared.data)
    return shared.failureReason ? (
      <Unavailable error={shared.failureReason} title="This link does not stand, or no longer">
        It has run out, or was taken back. Ask whoever sent it for another one.
      </Unavailable>
    ) : (
      <TopBar />
    );
  const { name, card, made_at, expires_at } = shared.data;
  const shown =
    asked && card.gauges.find((gauge) => gauge.measure === asked.measure && gauge.at === asked.at);
  return (
    <>
      <TopBar />
      <Box as="main" maxW="1040px" mx="auto" px="4" py="5" data-shared={name}>
        <Heading as="h1" size="2xl">
          {name}
        </Heading>
        <Box color="ink.second">
          {ratioText(units, card.ratio)} · as it stood on {day(made_at)} · this link stands until{" "}
          {day(expires_at)}
        </Box>
        <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p="4" my="4">
          <Box maxW="620px" mx="auto">
            <MiniLine line={card.line} name={name} />
          </Box>
        </Box>
        <Box
          css={{
            "& .readout": { position: "static", flexWrap: "wrap", rowGap: "10px" },
            "& .gauge": { minW: "140px" },
          }}
        >
          <Readout gauges={card.gauges} uncertainties={null} stale={false} onAsk={setAsked} />
        </Box>
        {shown ? (
          <SharedWorking key={`${shown.measure} ${shown.at}`} code={code} gauge={shown} />
        ) : (
          <Box color="ink.second" mt="4">
            Choose a number to see where it comes from.
          </Box>
        )}
      </Box>
    </>
  );
}

/** Where one of the numbers comes from. */
function SharedWorking({ code, gauge }: { code: string; gauge: Gauge }) {
  const units = useUnits();
  const working = useQuery({
    queryKey: ["shared", code, gauge.measure, gauge.at],
    queryFn: () =>
      answer(api.POST("/api/shared/working/", { body: { code, measure: gauge.measure, at: gauge.at } })),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
  return (
    <Box
      as="section"
      aria-labelledby="working"
      mt="4"
      p="4"
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="3px"
      data-working={gauge.measure}
    >
      <Heading as="h2" id="working" size="md" mb="2">
        {gaugeLabel(gauge, units)}
      </Heading>
      {working.data ? (
        <WorkingSheet working={working.data} title={gaugeLabel(gauge, units)} />
      ) : working.isError ? (
        <Box role="alert">{troubleText(working.error)}</Box>
      ) : (
        <Box role="status">Working it out</Box>
      )}
    </Box>
  );
}
