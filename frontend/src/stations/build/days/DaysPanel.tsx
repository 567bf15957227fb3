import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useState } from "react";
import type { BuildShown, Days } from "../../../api/client";
import { usePlace } from "../../../document/context";
import type { BookOf } from "../../../document/useBook";
import { DownloadLink } from "../../../ui/DownloadLink";
import { clockNow, weekday } from "../../../ui/when";
import { counted } from "../../../words/counted";
import { FRAME } from "../../shared/frame";
import { minutes } from "../words";
import { Strip } from "./Strip";

interface Props {
  shown: BuildShown;
  book: BookOf;
  readOnly: boolean;
  onChoose: (step: string) => void;
}

/** The days to the event: today's list on top, what is late in words with what helps, a strip of all days. */
export function DaysPanel({ shown, book, readOnly, onChoose }: Props) {
  const { plan } = shown;
  return (
    <Box
      display="grid"
      gap="2"
      alignItems="start"
      gridTemplateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 336px" }}
      data-days
    >
      <Box {...FRAME} minW="0">
        {plan ? (
          <Planned plan={plan} shown={shown} onChoose={onChoose} />
        ) : (
          <Box as="h2" fontSize="xl" fontWeight="700">
            Say when the event is: the days are planned backwards from it.
          </Box>
        )}
      </Box>
      <Box display="grid" gap="2">
        <When book={book} readOnly={readOnly} />
        <Box {...FRAME} fontSize="14px" data-pace>
          {shown.judged >= ENOUGH
            ? `You take ${shown.pace.toFixed(1)} times as long as assumed, by ${shown.judged} steps; the plan counts with that.`
            : `Your own pace is taken once five steps have their minutes; ${shown.judged} have.`}
        </Box>
      </Box>
    </Box>
  );
}

const ENOUGH = 5;

function Planned({ plan, shown, onChoose }: { plan: Days; shown: BuildShown; onChoose: Props["onChoose"] }) {
  const { vehicle } = usePlace();
  const today = clockNow().slice(0, 10);
  const first = plan.days.find((day) => day.date >= today) ?? plan.days[0];
  const titles = new Map(shown.steps.map((step) => [step.id, step]));
  return (
    <>
      <Box
        as="h2"
        fontSize="xl"
        fontWeight="700"
        lineHeight="1.25"
        data-plan-sentence
        data-late={plan.late_by_days}
      >
        {plan.sentence}
      </Box>
      {plan.reliefs.length > 0 && (
        <Box mt="1" data-reliefs>
          What helps:
          <Box as="ul" pl="5" listStyleType="disc">
            {plan.reliefs.map((relief) => (
              <li key={relief.words}>
                {`${relief.words}: ${relief.late_by_days ? `late by ${counted(relief.late_by_days, "day")}` : "in time"}`}
              </li>
            ))}
          </Box>
        </Box>
      )}
      {first && (
        <Box mt="3">
          <Box fontWeight="700">
            {`${first.date === today ? "Today" : weekday(first.date)}, ${minutes(first.minutes)}`}
          </Box>
          {first.steps.map((id) => (
            <Box key={id}>
              <button type="button" className="link" onClick={() => onChoose(id)}>
                {titles.get(id)?.title}
              </button>
            </Box>
          ))}
        </Box>
      )}
      <Strip plan={plan} onChoose={onChoose} titles={titles} />
      {plan.orders.length > 0 && (
        <Box mt="3">
          <Box fontWeight="700">To order</Box>
          <table className="parts">
            <tbody>
              {plan.orders.map((due) => (
                <tr key={due.part} data-due={due.late || undefined}>
                  <th scope="row">{due.part}</th>
                  <td>{due.late ? "today" : `by ${weekday(due.latest)}`}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Box>
      )}
      <Flex gap="1" mt="3" data-screen-only>
        <Button size="xs" asChild>
          <DownloadLink href={`/api/vehicles/${vehicle}/build/calendar/?now=${clockNow()}`}>
            Save as a calendar
          </DownloadLink>
        </Button>
        <Button size="xs" onClick={() => window.print()}>
          Print
        </Button>
      </Flex>
    </>
  );
}

const WEEKDAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];
const USUAL = [2, 2, 2, 2, 2, 6, 6];

/** The event, how many people, and the hours of each weekday. */
function When({ book, readOnly }: { book: BookOf; readOnly: boolean }) {
  const { event, people = 1, hours = USUAL } = book.book;
  const [typed, setTyped] = useState<string[] | null>(null);
  const shown = typed ?? hours.map(String);
  const commit = () => {
    if (!typed) return;
    const next = typed.map((text) => Number(text.replace(",", ".")));
    void book.change((old) => ({ ...old, hours: next })).then((taken) => taken && setTyped(null));
  };
  return (
    <Box {...FRAME} data-when>
      <Flex gap="2">
        <Box as="label" fontSize="sm" flex="1">
          event
          <Input
            type="datetime-local"
            value={event ?? ""}
            readOnly={readOnly}
            onChange={(change) =>
              void book.change((old) => ({ ...old, event: change.target.value || undefined }))
            }
          />
        </Box>
        <Box as="label" fontSize="sm" w="70px">
          people
          <Input
            type="number"
            min={1}
            max={64}
            value={people}
            readOnly={readOnly}
            onChange={(change) =>
              void book.change((old) => ({ ...old, people: Number(change.target.value) || 1 }))
            }
          />
        </Box>
      </Flex>
      <Box fontSize="sm" mt="2">
        hours of each on a weekday
      </Box>
      <Flex gap="1">
        {WEEKDAYS.map((name, i) => (
          <Box as="label" key={name} fontSize="12px" color="ink.second" flex="1">
            {name}
            <Input
              px="1"
              textAlign="center"
              value={shown[i] ?? ""}
              readOnly={readOnly}
              onChange={(change) => setTyped(shown.map((old, j) => (j === i ? change.target.value : old)))}
              onBlur={commit}
              onKeyDown={(key) => key.key === "Enter" && commit()}
            />
          </Box>
        ))}
      </Flex>
      {book.trouble && (
        <Box role="alert" color="brick" fontSize="sm" mt="1">
          {book.trouble}
        </Box>
      )}
    </Box>
  );
}
