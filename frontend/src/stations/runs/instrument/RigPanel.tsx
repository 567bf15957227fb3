import { Box, Button, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { Learnt, LoggedRun } from "../../../api/client";
import { useDocument } from "../../../document/context";
import { useUnits } from "../../../ui/fields/units";
import { Gearing } from "../Gearing";
import { FoundRuns, Heard } from "./Heard";
import { useListened } from "./useListened";
import type { Action, PracticeRig } from "./useRig";

const ACTIONS: [Action, string][] = [
  ["spin", "Spin"],
  ["run", "Run"],
  ["push", "Push"],
  ["tow", "Tow"],
];
const REPEATS = [1, 2, 3, 5];

interface Props {
  rig: PracticeRig;
  runs: LoggedRun[];
  learnt: Learnt | undefined;
}

/** A simulated bench: a counter, two light gates, a spring scale and a logger, for the design at hand. */
export function RigPanel({ rig, runs, learnt }: Props) {
  const units = useUnits();
  const design = useDocument();
  const [repeats, setRepeats] = useState(3);
  const [tried, setTried] = useState<number | null>(null);
  const listened = useListened(rig.lines, String(design.run?.distance ?? "10 m"));
  const busy = rig.state?.action ?? null;
  const titles = new Map(units.runs.map((kind) => [kind.kind, kind.title]));
  return (
    <Box as="section" aria-label="Practice rig" data-rig>
      <Box fontSize="13.5px" color="ink.second" mb="2">
        Simulated, for any design: its losses are hidden, its readings scatter, its battery empties and its
        motor warms. What it reads lands in the log, marked "rig".
      </Box>
      <Flex gap="2" wrap="wrap" align="end">
        {ACTIONS.map(([action, words]) => (
          <Button
            key={action}
            minH="44px"
            px="5"
            variant={busy ? "outline" : "solid"}
            disabled={busy !== null}
            onClick={() => void rig.order(action, repeats, tried)}
            data-rig-action={action}
          >
            {words}
          </Button>
        ))}
        <select
          className="plain"
          aria-label="How often"
          value={repeats}
          onChange={(event) => setRepeats(Number(event.target.value))}
        >
          {REPEATS.map((times) => (
            <option key={times} value={times}>
              {times === 1 ? "once" : `${times} times`}
            </option>
          ))}
        </select>
        <Gearing tried={tried} runs={runs} learnt={learnt} onChoose={setTried} />
        {busy && (
          <Button minH="44px" onClick={() => void rig.change("stop")}>
            Stop
          </Button>
        )}
      </Flex>
      <Box role="status" fontSize="14px" mt="1" minH="1.4em">
        {rig.lost
          ? "No connection: it goes on when there is one, without a gap."
          : busy && `It does: ${titles.get(busy === "run" ? "distance_time" : busy)?.toLowerCase()}.`}
      </Box>
      {rig.trouble && (
        <Box role="alert" color="brick">
          {rig.trouble}
        </Box>
      )}
      {listened && <Heard listened={listened} />}
      {listened && <FoundRuns listened={listened} titles={titles} />}
      <Flex gap="3" mt="2" wrap="wrap" align="baseline">
        <button type="button" className="link" onClick={() => void rig.change("charge")}>
          Charge its battery
        </button>
        <button type="button" className="link" onClick={() => void rig.change("show")}>
          Show what is hidden
        </button>
        <button type="button" className="link" onClick={() => void rig.change("start anew")}>
          Another vehicle of the same design
        </button>
      </Flex>
      {rig.state && rig.state.hidden.length > 0 && <Hidden hidden={rig.state.hidden} learnt={learnt} />}
    </Box>
  );
}

/** What is true, beside what was learnt. */
function Hidden({
  hidden,
  learnt,
}: {
  hidden: { name: string; factor: number }[];
  learnt: Learnt | undefined;
}) {
  const known = new Map(learnt?.unknowns.map((unknown) => [unknown.name.split(" on ")[0], unknown]));
  return (
    <Box overflowX="auto" mt="1" tabIndex={0} role="region" aria-label="What is hidden" data-hidden>
      <table className="working rows">
        <caption style={{ textAlign: "left", fontSize: "13px" }}>
          True values over those of the design as it is now
        </caption>
        <thead>
          <tr>
            <th scope="col">what</th>
            <th scope="col">true</th>
            <th scope="col">learnt</th>
            <th scope="col">doubt</th>
          </tr>
        </thead>
        <tbody>
          {hidden.map((one) => {
            const found = known.get(one.name.replaceAll("_", " "));
            return (
              <tr key={one.name}>
                <td>{one.name.replaceAll("_", " ")}</td>
                <td>{`× ${one.factor.toFixed(3)}`}</td>
                <td>{found ? `× ${found.factor.toFixed(3)}` : "–"}</td>
                <td>{found ? `± ${(100 * found.sd).toFixed(1)} %` : "–"}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Box>
  );
}
