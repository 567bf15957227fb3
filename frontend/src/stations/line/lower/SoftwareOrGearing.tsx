import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type DutyLimit, RefusedError, troubleText } from "../../../api/client";
import { useDocument, useFigures } from "../../../document/context";
import { QuantityField } from "../../../ui/fields/QuantityField";
import { digits, ratioText, show, useUnits } from "../../../ui/fields/units";

/** The wanted top speed two ways: turned down in software, or geared for it. */
export function SoftwareOrGearing() {
  const document = useDocument();
  const { faults } = useFigures();
  const [speed, setSpeed] = useState<string | undefined>();
  const query = useQuery({
    queryKey: ["turned down", document, speed],
    queryFn: () =>
      answer(
        api.POST("/api/turned-down/", {
          body: { document: document as unknown as Record<string, unknown>, speed },
        }),
      ),
    enabled: faults.length === 0,
    placeholderData: (old) => old,
    retry: false,
  });
  const refused = query.error instanceof RefusedError ? query.error.refusal.faults : undefined;
  return (
    <Box data-ways>
      <Box maxW="220px" mb="2" data-screen-only>
        <QuantityField
          label="Compare at a top speed of"
          dimension="speed"
          value={speed}
          fault={refused?.find((f) => f.path === "speed")}
          optional
          onChange={setSpeed}
        />
      </Box>
      {query.isError && !refused && <Box role="alert">{troubleText(query.error)}</Box>}
      {query.data ? <Answer found={query.data} /> : !query.isError && <Box role="status">Working it out</Box>}
    </Box>
  );
}

type Way = DutyLimit["ways"][number];

function Answer({ found }: { found: DutyLimit }) {
  const units = useUnits();
  const text = (dimension: string, si: number | null | undefined) =>
    Object.values(show(units, dimension, si)).join(" ");
  const rows: [string, (way: Way) => string][] = [
    ["Top speed", (way) => text("speed", way.top_speed)],
    ["Reduction", (way) => ratioText(units, way.ratio)],
    ["Share of the voltage at full throttle", (way) => `${digits(100 * way.duty)} %`],
    ["One motor in the hard start", (way) => text("current", way.motor_current)],
    ["Supply in the hard start", (way) => text("current", way.bus_current)],
    ["Time over the distance", (way) => text("time", way.time_to_distance)],
    ["Pull away", (way) => text("acceleration", way.launch_acceleration)],
    ["Push at a wall", (way) => text("force", way.pushing_force)],
  ];
  return (
    <Box>
      <Box as="h2" fontWeight="600" mb="1">
        {found.wanted === null
          ? "Software or gearing"
          : `For ${text("speed", found.wanted)}: turned down in software, or geared for it`}
      </Box>
      {found.why && <Box color="ink.second">{found.why}</Box>}
      {found.ways.length > 0 && (
        <table className="working">
          <thead>
            <tr>
              <td />
              {found.ways.map((way) => (
                <th key={way.words} scope="col">
                  <b>{way.words}</b>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(([name, shown]) => (
              <tr key={name}>
                <th scope="row">{name}</th>
                {found.ways.map((way) => (
                  <td key={way.words}>{shown(way)}</td>
                ))}
              </tr>
            ))}
            <tr>
              <td />
              {found.ways.map((way) => (
                <td key={way.words} style={{ whiteSpace: "normal" }}>
                  {way.note}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      )}
    </Box>
  );
}
