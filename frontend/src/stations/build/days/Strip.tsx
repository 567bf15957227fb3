import { Box } from "@chakra-ui/react";
import { useState } from "react";
import type { BuildStep, Days } from "../../../api/client";
import { weekday } from "../../../ui/when";
import { counted } from "../../../words/counted";
import { minutes } from "../words";

interface Props {
  plan: Days;
  titles: Map<string, BuildStep>;
  onChoose: (step: string) => void;
}

const HIGH = 64;

/** A bar a day, as high as there is work in it; critical days darker; what lies behind the event is too late. */
export function Strip({ plan, titles, onChoose }: Props) {
  const [open, setOpen] = useState("");
  const most = Math.max(...plan.days.map((day) => day.minutes), 1);
  const after = plan.days.filter((day) => day.date >= plan.event.slice(0, 10));
  const before = plan.days.filter((day) => !after.includes(day));
  const bar = (one: Days["days"][number]) => (
    <button
      key={one.date}
      type="button"
      className="day"
      aria-pressed={one.date === open}
      onClick={() => setOpen(one.date === open ? "" : one.date)}
    >
      <i
        data-critical={one.critical || undefined}
        style={{ height: Math.max(4, (HIGH * one.minutes) / most) }}
      />
      <span>{weekday(one.date)}</span>
      <b>{minutes(one.minutes)}</b>
      <em className="visually-hidden">{`, ${counted(one.steps.length, "step")}${one.critical ? ", critical" : ""}`}</em>
    </button>
  );
  const chosen = plan.days.find((day) => day.date === open);
  return (
    <Box mt="3" data-strip={plan.days.length}>
      <Box fontWeight="700" mb="1">
        Days with work
      </Box>
      <Box display="flex" gap="2px" alignItems="flex-end" overflowX="auto" pb="1">
        {before.map(bar)}
        <Box className="day" data-event>
          <i style={{ height: HIGH }} />
          <span>{weekday(plan.event)}</span>
          <b>event</b>
        </Box>
        {after.map(bar)}
      </Box>
      {chosen && (
        <Box data-day={chosen.date}>
          {chosen.steps.map((id) => (
            <Box key={id}>
              <button type="button" className="link" onClick={() => onChoose(id)}>
                {titles.get(id)?.title}
              </button>
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}
