import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type BuildAnswer, type BuildStep, type Care, troubleText } from "../../../api/client";
import { usePlace } from "../../../document/context";
import { newId } from "../../../document/newId";
import { keptKey, useKept } from "../../../ui/kept";
import { moment } from "../../../ui/when";
import { counted } from "../../../words/counted";
import { FRAME } from "../../shared/frame";
import { PhotoOf, PhotoTrouble, TakePhoto } from "../Photos";
import type { PhotosHeld } from "../usePhotos";

interface Found {
  step: string;
  found: string;
  words: string;
  photo?: string;
}

interface Inspection {
  hours?: number;
  after?: string;
  findings?: Found[];
}

const KINDS = ["loosened", "rubbed", "worn", "cracked", "other"];

/** What is due to be looked at, writing an inspection down, and those that were. */
export function LookAfter({
  answer: { shown, cares, hours },
  photos,
  readOnly,
}: {
  answer: BuildAnswer;
  photos: PhotosHeld;
  readOnly: boolean;
}) {
  const { vehicle } = usePlace();
  const path = { vehicle };
  const log = useQuery({
    queryKey: ["inspections", vehicle],
    queryFn: () => answer(api.GET("/api/vehicles/{vehicle}/build/inspections/", { params: { path } })),
  });
  const due = cares.filter((care) => care.due);
  const titles = new Map(shown.steps.map((step) => [step.id, step]));
  return (
    <Box
      display="grid"
      gap="2"
      alignItems="start"
      gridTemplateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 430px" }}
      data-look-after
    >
      <Box {...FRAME}>
        <Box as="h2" fontSize="xl" fontWeight="700" data-due-count={due.length}>
          {headline(shown.signed_at, due.length, hours)}
        </Box>
        <CareTable cares={cares} />
      </Box>
      <Box display="grid" gap="2">
        {!readOnly && <NewInspection hours={hours} steps={shown.steps} cares={cares} photos={photos} />}
        <Box {...FRAME} data-inspections={log.data?.length ?? 0}>
          <Box as="h2" fontSize="lg" fontWeight="700">
            {log.data?.length ? counted(log.data.length, "inspection") : "No inspection yet"}
          </Box>
          {[...(log.data ?? [])].reverse().map((entry) => {
            const document = entry.document as Inspection;
            return (
              <Box key={entry.id} borderTopWidth="1px" borderColor="line" py="1" fontSize="14px">
                <b>{document.after || hoursText(document.hours ?? 0)}</b>
                <Box as="span" color="ink.second">{` ${entry.author ?? ""}, ${moment(entry.at)}`}</Box>
                {(document.findings ?? []).map((finding) => (
                  <Box key={`${finding.step} ${finding.words}`}>
                    {`${finding.found === "other" ? "" : `${finding.found}: `}${finding.words}`}
                    <Box as="span" color="ink.second">{` ${titles.get(finding.step)?.about ?? ""}`}</Box>
                    {finding.photo && <PhotoOf photo={finding.photo} of={finding.words} photos={photos} />}
                  </Box>
                ))}
                {!document.findings?.length && <Box>nothing found</Box>}
              </Box>
            );
          })}
        </Box>
      </Box>
    </Box>
  );
}

/** What is due, once the vehicle is built. */
function headline(signed: string | null, due: number, hours: number): string {
  if (!signed) return "It is not signed off yet. Once it runs, these are looked at again and again:";
  const after = `after ${hoursText(hours)} of running`;
  if (due === 0) return `Nothing is due ${after}.`;
  return due === 1 ? `One thing is due ${after}.` : `${due} things are due ${after}.`;
}

function CareTable({ cares }: { cares: Care[] }) {
  return (
    <table className="parts">
      <thead>
        <tr>
          <th scope="col">what is looked at</th>
          <th scope="col">last at</th>
          <th scope="col">due at</th>
        </tr>
      </thead>
      <tbody>
        {cares.map((care) => (
          <tr key={care.step} data-due={care.due || undefined}>
            <th scope="row">{care.words}</th>
            <td className="figure">{care.last === null ? "never" : hoursText(care.last)}</td>
            <td className="figure">{care.due ? <b>now</b> : hoursText(care.next)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface NewProps {
  hours: number;
  steps: BuildStep[];
  cares: Care[];
  photos: PhotosHeld;
}

/** As it is typed. Its number stays the same until the server has it: sent twice, it is kept once. */
interface Typed {
  id: string;
  hours: string | null;
  after: string;
  findings: Found[];
}

const nothing = (): Typed => ({ id: newId(), hours: null, after: "", findings: [] });

function NewInspection({ hours, steps, cares, photos }: NewProps) {
  const { account, vehicle } = usePlace();
  const queries = useQueryClient();
  const [typed, setTyped] = useKept(keptKey("inspection", account, vehicle), nothing);
  const [trouble, setTrouble] = useState("");
  const { after, findings } = typed;
  const run = typed.hours ?? String(Math.round(hours * 100) / 100);
  const say = (part: Partial<Typed>) => setTyped({ ...typed, ...part });
  const put = (i: number, part: Partial<Found>) =>
    say({ findings: findings.map((finding, j) => (i === j ? { ...finding, ...part } : finding)) });
  const keep = async () => {
    setTrouble("");
    try {
      const document = { hours: Number(run.replace(",", ".")), after: after.trim(), findings };
      const body = { id: typed.id, at: new Date().toISOString(), document };
      await answer(
        api.POST("/api/vehicles/{vehicle}/build/inspections/", { params: { path: { vehicle } }, body }),
      );
      setTyped(null);
      for (const key of ["inspections", "build", "pulse"])
        void queries.invalidateQueries({ queryKey: [key, vehicle] });
    } catch (error) {
      setTrouble(troubleText(error));
    }
  };
  const places = cares.map((care) => care.step);
  const shown = steps.filter((step) => places.includes(step.id));
  return (
    <Box {...FRAME} data-new-inspection>
      <Box as="h2" fontSize="lg" fontWeight="700">
        Look it over
      </Box>
      <Flex gap="2">
        <Box as="label" fontSize="sm" flex="1">
          after what
          <Input
            fontFamily="body"
            placeholder="such as Causeway Day"
            value={after}
            onChange={(event) => say({ after: event.target.value })}
          />
        </Box>
        <Box as="label" fontSize="sm" w="110px">
          hours run in all
          <Input inputMode="decimal" value={run} onChange={(event) => say({ hours: event.target.value })} />
        </Box>
      </Flex>
      {findings.map((found, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a finding is its place in the list
        <Flex key={i} gap="1" mt="2" wrap="wrap" data-finding>
          <select
            className="plain"
            aria-label="What happened"
            value={found.found}
            onChange={(event) => put(i, { found: event.target.value })}
          >
            {KINDS.map((kind) => (
              <option key={kind}>{kind}</option>
            ))}
          </select>
          <Box flex="1 1 180px">
            <select
              className="plain"
              style={{ width: "100%" }}
              aria-label="Where"
              value={found.step}
              onChange={(event) => put(i, { step: event.target.value })}
            >
              {shown.map((step) => (
                <option key={step.id} value={step.id}>
                  {step.title}
                </option>
              ))}
            </select>
          </Box>
          <Input
            aria-label="In words"
            fontFamily="body"
            placeholder="in words"
            flex="1 1 100%"
            value={found.words}
            onChange={(event) => put(i, { words: event.target.value })}
          />
          {!found.photo ? (
            <TakePhoto onTaken={(file) => put(i, { photo: photos.take(found.step, file) })} />
          ) : (
            <PhotoOf photo={found.photo} of={found.words} photos={photos} />
          )}
        </Flex>
      ))}
      <Flex gap="1" mt="2">
        <Button
          size="xs"
          onClick={() =>
            say({ findings: [...findings, { step: shown[0]?.id ?? "", found: "loosened", words: "" }] })
          }
        >
          Something was found
        </Button>
        <Button size="xs" variant="solid" onClick={() => void keep()}>
          {findings.length ? "Keep this inspection" : "All was well: keep it"}
        </Button>
      </Flex>
      <PhotoTrouble photos={photos} />
      {trouble && (
        <Box role="alert" color="brick" fontSize="sm">
          {trouble}
        </Box>
      )}
    </Box>
  );
}

const hoursText = (hours: number) =>
  hours < 1 ? `${Math.round(hours * 60)} min` : `${Math.round(hours * 10) / 10} h`;
