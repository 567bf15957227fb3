import { Box, Flex } from "@chakra-ui/react";
import { useEffect, useMemo, useRef, useState } from "react";
import { type BuildAnswer, troubleText } from "../../api/client";
import { useEdit, usePlace } from "../../document/context";
import { useBook } from "../../document/useBook";
import { useBuild } from "../../document/useBuild";
import { FRAME } from "../shared/frame";
import { BookletButton } from "./BookletButton";
import { LookAfter } from "./care/LookAfter";
import { DaysPanel } from "./days/DaysPanel";
import { Ledger } from "./Ledger";
import { NextStep } from "./NextStep";
import { OwnStepForm } from "./OwnStepForm";
import { Schools } from "./Schools";
import { StepList } from "./StepList";
import { usePhotos } from "./usePhotos";
import { type TakenBack, useTicks } from "./useTicks";
import { upNext } from "./words";

const PARTS = ["Steps", "Days", "Look after"] as const;
type Part = (typeof PARTS)[number];
/** Pixels that the ledger takes where it stays in sight. */
const LEDGER = 130;

/** The steps that make the design, one thumb to tick; what is loose always in sight. */
export function BuildStation() {
  const { vehicle } = usePlace();
  const build = useBuild(vehicle, true);
  if (build.data) return <Building answer={build.data} />;
  if (build.isError)
    return (
      <Box role="alert" {...FRAME}>
        {troubleText(build.error)}
      </Box>
    );
  return <Box role="status" aria-label="Loading" h="480px" />;
}

function Building({ answer }: { answer: BuildAnswer }) {
  const { readOnly } = useEdit();
  const { vehicle } = usePlace();
  const ticks = useTicks(answer.shown);
  const photos = usePhotos();
  const book = useBook(vehicle);
  const [part, setPart] = useState<Part>("Steps");
  const [chosen, setChosen] = useState("");
  const { shown } = ticks;
  const card = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (chosen && card.current && card.current.getBoundingClientRect().top < LEDGER)
      card.current.scrollIntoView({ block: "start" });
  }, [chosen]);
  const titles = useMemo(() => new Map(shown.steps.map((step) => [step.id, step.title])), [shown.steps]);
  const next = upNext(shown, chosen);
  return (
    <Box data-build>
      <Ledger shown={shown} waiting={ticks.waiting} onChoose={setChosen} />
      <Flex gap="4" my="2" role="group" aria-label="What is shown" data-screen-only>
        {PARTS.map((one) => (
          <button
            key={one}
            type="button"
            className="tab"
            aria-pressed={part === one}
            onClick={() => setPart(one)}
          >
            {one === "Look after" ? `${one}${dueText(answer)}` : one}
          </button>
        ))}
        <Box flex="1" />
        <BookletButton />
      </Flex>
      {part === "Steps" && (
        <Box
          display="grid"
          gap="2"
          alignItems="start"
          gridTemplateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 430px" }}
        >
          <Box
            display="grid"
            gap="2"
            gridTemplateColumns="minmax(0, 1fr)"
            ref={card}
            scrollMarginTop={`${LEDGER}px`}
          >
            <Back back={ticks.back.filter((entry) => entry.entry.step !== next?.id)} onChoose={setChosen} />
            {next ? (
              <NextStep
                key={next.id}
                step={next}
                titles={titles}
                ticks={ticks}
                photos={photos}
                readOnly={readOnly}
                isNext={!chosen || next.id === upNext(shown, "")?.id}
                onBack={() => setChosen("")}
                onDone={() => setChosen("")}
                onChoose={setChosen}
              />
            ) : (
              <Box {...FRAME} data-finished>
                <Box as="h2" fontSize="xl" fontWeight="700">
                  {shown.signed_at ? `Signed off by ${shown.signed_by}.` : "All steps are done."}
                </Box>
              </Box>
            )}
            {!readOnly && <OwnStepForm book={book} steps={shown.steps} after={next?.id ?? ""} />}
            <Schools readOnly={readOnly} />
          </Box>
          <StepList shown={shown} chosen={next?.id ?? ""} onChoose={setChosen} />
        </Box>
      )}
      {part === "Days" && (
        <DaysPanel
          shown={shown}
          book={book}
          readOnly={readOnly}
          onChoose={(id) => {
            setChosen(id);
            setPart("Steps");
          }}
        />
      )}
      {part === "Look after" && <LookAfter answer={answer} photos={photos} readOnly={readOnly} />}
    </Box>
  );
}

/** Ticks that were taken back, where their steps are not in sight. */
function Back({ back, onChoose }: { back: TakenBack[]; onChoose: (step: string) => void }) {
  return back.map(({ entry, reasons }) => (
    <Box key={entry.id} role="alert" {...FRAME} borderColor="brick" data-taken-back={entry.step}>
      The tick was taken back:{" "}
      <button type="button" className="link" onClick={() => onChoose(entry.step)}>
        {entry.title}
      </button>
      <Box color="ink.second">{reasons[0]?.words}</Box>
    </Box>
  ));
}

function dueText({ cares, shown }: BuildAnswer): string {
  const due = shown.signed_at ? cares.filter((care) => care.due).length : 0;
  return due ? `, ${due} due` : "";
}
