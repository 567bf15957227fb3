import { Box } from "@chakra-ui/react";
import { useId } from "react";
import type { Learnt, LoggedRun } from "../../api/client";

interface GearingProps {
  tried: number | null;
  runs: LoggedRun[];
  learnt: Learnt | undefined;
  onChoose: (tried: number | null) => void;
}

/** With which gearing: the design as it is, or one that was run before. */
export function Gearing({ tried, runs, learnt, onChoose }: GearingProps) {
  const id = useId();
  const keys = [...new Set(runs.map((run) => run.design))];
  const names = new Map(keys.map((key) => [key, learnt?.designs[String(key)]]));
  const others = keys.filter((key) => names.get(key) && names.get(key) !== learnt?.present);
  if (others.length === 0) return null;
  return (
    <Box>
      <label htmlFor={id} className="visually-hidden">
        With which gearing
      </label>
      <select
        id={id}
        className="plain"
        value={tried ?? ""}
        onChange={(event) => onChoose(event.target.value ? Number(event.target.value) : null)}
      >
        <option value="">{`with ${learnt?.present ?? "the design as it is"}, as it is now`}</option>
        {others.map((key) => (
          <option key={key} value={key}>{`with ${names.get(key)}`}</option>
        ))}
      </select>
    </Box>
  );
}
