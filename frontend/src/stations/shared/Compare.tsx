import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Comparison, troubleText } from "../../api/client";
import { useDocument, useFigures, usePlace } from "../../document/context";
import type { DesignDocument } from "../../document/document";
import { Chart } from "../../drawing/charts/Chart";
import { plain, points } from "../../drawing/charts/chartData";
import { niceTop, type Series } from "../../drawing/charts/curves";
import { BRICK, COPPER, INK, SLATE, SPRUCE } from "../../drawing/colours";
import { MiniLine } from "../../drawing/MiniLine";
import { ratioText, show, useUnits } from "../../ui/fields/units";
import { runText } from "../../ui/readout/Readout";
import { StandingMark } from "../../ui/StandingMark";
import { label } from "../../words/measures";
import { History } from "./History";
import { documentOf, Revisions } from "./Revisions";

const MOST = 4;
const MARK = "the mark";

interface Other {
  name: string;
  document: DesignDocument;
}

/** The present design beside the mark, kept revisions and other vehicles: four at most. */
export function Compare() {
  const { marked } = useFigures();
  const [revisions, setRevisions] = useState<number[]>([]);
  const [vehicles, setVehicles] = useState<string[]>([]);
  const others = useOthers(marked, revisions, vehicles);
  const full = others.length >= MOST - 1;
  const toggle = <T,>(list: T[], entry: T) =>
    list.includes(entry) ? list.filter((e) => e !== entry) : full ? list : [...list, entry];
  return (
    <Box
      display="grid"
      gridTemplateColumns={{ base: "1fr", md: "236px minmax(0, 1fr)" }}
      gap="4"
      data-compare
    >
      <Box>
        <Revisions compared={revisions} onCompare={(number) => setRevisions(toggle(revisions, number))} />
        <History compared={revisions} onCompare={(number) => setRevisions(toggle(revisions, number))} />
        <OtherVehicles chosen={vehicles} onChoose={(id) => setVehicles(toggle(vehicles, id))} />
        {full && <Box color="ink.second">Four side by side is the most.</Box>}
      </Box>
      <Columns others={others} />
    </Box>
  );
}

function useOthers(marked: DesignDocument | null, revisions: number[], vehicles: string[]): Other[] {
  const { vehicle } = usePlace();
  const named = useNames();
  const loaded = useQuery({
    queryKey: ["compared", vehicle, revisions],
    queryFn: () => Promise.all(revisions.map((number) => documentOf(vehicle, number))),
    placeholderData: (old) => old,
  });
  return [
    ...(marked ? [{ name: MARK, document: marked }] : []),
    ...revisions.flatMap((number, i): Other[] => {
      const document = loaded.data?.[i];
      return document ? [{ name: named.get(number) ?? `revision ${number}`, document }] : [];
    }),
    ...useVehicles()
      .filter((v) => vehicles.includes(v.id))
      .map((v) => ({ name: v.name, document: v.document as unknown as DesignDocument })),
  ].slice(0, MOST - 1);
}

function useNames(): Map<number, string> {
  const { vehicle } = usePlace();
  const revisions = useQuery({
    queryKey: ["revisions", vehicle, "names"],
    queryFn: () => answer(api.GET("/api/vehicles/{vehicle}/revisions/", { params: { path: { vehicle } } })),
  });
  return new Map(revisions.data?.map((r) => [r.number, r.name]));
}

function useVehicles() {
  const { workshop, vehicle } = usePlace();
  const query = useQuery({
    queryKey: ["vehicles", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/vehicles/", { params: { path: { workshop } } })),
  });
  return query.data?.filter((v) => v.id !== vehicle && !v.put_away) ?? [];
}

function OtherVehicles({ chosen, onChoose }: { chosen: string[]; onChoose: (id: string) => void }) {
  const vehicles = useVehicles();
  if (vehicles.length === 0) return null;
  return (
    <Box mt="3">
      <Box as="h2" fontWeight="600" mb="1">
        Other vehicles
      </Box>
      {vehicles.map((v) => (
        <label key={v.id} style={{ display: "block", fontSize: "14px" }}>
          <input type="checkbox" checked={chosen.includes(v.id)} onChange={() => onChoose(v.id)} /> {v.name}
        </label>
      ))}
    </Box>
  );
}

/** The present design and others by the same rows, with what each can pull. */
export function Columns({ others }: { others: Other[] }) {
  const document = useDocument();
  const { faults } = useFigures();
  const { vehicle } = usePlace();
  const documents = [document, ...others.map((o) => o.document)];
  const query = useQuery({
    queryKey: ["compare", documents],
    queryFn: () =>
      answer(
        api.POST("/api/compare/", {
          body: { documents: documents as unknown as Record<string, unknown>[], vehicle },
        }),
      ),
    enabled: faults.length === 0,
    placeholderData: (old) => old,
    retry: false,
  });
  if (query.isError) return <Box role="alert">{troubleText(query.error)}</Box>;
  if (!query.data) return <Box role="status">Working it out</Box>;
  const names = ["present", ...others.map((o) => o.name)].slice(0, query.data.columns.length);
  return (
    <Box minW="0">
      {others.length === 0 && (
        <Box color="ink.second" mb="2">
          Set the mark, or tick a kept revision or another vehicle: they stand here side by side.
        </Box>
      )}
      <ComparedTable found={query.data} names={names} />
      <Forces found={query.data} names={names} />
    </Box>
  );
}

function ComparedTable({ found, names }: { found: Comparison; names: string[] }) {
  const units = useUnits();
  return (
    <Box overflowX="auto" tabIndex={0} role="region" aria-label="Side by side">
      <table className="working compared">
        <thead>
          <tr>
            <td />
            {found.columns.map((column, i) => (
              <th key={names[i]} scope="col">
                <b>{names[i]}</b>
                <Box maxW="170px">
                  <MiniLine line={column.line} name={names[i] ?? ""} />
                </Box>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">Overall</th>
            {found.columns.map((column, i) => (
              <td key={names[i]}>{ratioText(units, column.ratio)}</td>
            ))}
          </tr>
          {found.rows.map((row, k) => (
            <tr key={`${row.measure} ${row.at} ${row.wanted}`}>
              <th scope="row">
                {label(row.measure, runText(row, units))}
                {row.wanted && (
                  <Box as="span" color="ink.second">
                    {" "}
                    {row.wanted}
                  </Box>
                )}
              </th>
              {found.columns.map((column, i) => {
                const value = column.values[k];
                return (
                  <td key={names[i]}>
                    {value && row.wanted && <StandingMark standing={value.standing} size={10} />}{" "}
                    {Object.values(show(units, row.dimension, value?.value)).join(" ")}
                    {value?.measured != null && (
                      <Box color="ink.second" data-measured={row.measure}>
                        {`measured ${Object.values(show(units, row.dimension, value.measured)).join(" ")}`}
                      </Box>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
          <tr>
            <th scope="row">What is nearest to its limit</th>
            {found.columns.map((column, i) => (
              <td key={names[i]} className="words">
                {column.worst}
              </td>
            ))}
          </tr>
          <tr>
            <th scope="row">Changed against the present</th>
            {found.columns.map((column, i) => (
              <td key={names[i]} className="words">
                {column.changes.map((change) => (
                  <div key={change}>{change}</div>
                ))}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </Box>
  );
}

const LINES = [
  { colour: SPRUCE },
  { colour: COPPER, dash: "7 3" },
  { colour: SLATE, dash: "2 3" },
  { colour: INK, dash: "9 3 2 3" },
  { colour: BRICK, dash: "1 3" },
];

/** What each can pull with over speed, in the gear that pulls most at each speed. */
function Forces({ found, names }: { found: Comparison; names: string[] }) {
  const units = useUnits();
  const speed = units.entry("speed")[units.system];
  const force = units.entry("force")[units.system];
  const series = found.columns.flatMap((column, i): Series[] =>
    column.force.gears.map((gear, g) => ({
      key: `${i} ${g}`,
      name: names[i] ?? "",
      ...(LINES[i] ?? { colour: INK }),
      points: points(gear.speed, gear.drive, speed.factor, force.factor),
      ...(g === 0 ? { labelAt: 0.1 + 0.22 * i } : {}),
    })),
  );
  const most = Math.max(...series.flatMap((s) => s.points.map(([, y]) => y)));
  const grip = Math.max(...found.columns.flatMap((column) => column.force.traction)) / force.factor;
  const end = Math.max(...series.flatMap((s) => s.points.map(([x]) => x)));
  return (
    <Box mt="2">
      <Box fontFamily="mono" fontSize="12.5px" color="ink.second">
        Driving force {force.symbol}, over speed
      </Box>
      <Chart
        height={190}
        x={{ unit: speed.symbol, max: end * 1.02 }}
        y={{ max: niceTop(Math.min(most, 2 * grip)) }}
        series={series}
        format={plain}
      />
    </Box>
  );
}
