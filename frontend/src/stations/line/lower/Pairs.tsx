import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { answer, api, type Grid, troubleText } from "../../../api/client";
import { useDocument, useEdit, useFigures } from "../../../document/context";
import { at, type Stage, withValue } from "../../../document/document";
import { saveText } from "../../../document/files";
import { digits, show, type Units, useUnits } from "../../../ui/fields/units";
import { StandingMark } from "../../../ui/StandingMark";
import { around, isUsable, parseCounts } from "../../../words/ranges";

/** Every driver against every driven of the selected stage: what people print and pin to the wall. */
export function Pairs() {
  const document = useDocument();
  const { selected, live } = useFigures();
  const paths = [
    ...new Set(
      live.view.line.rows
        .flatMap((row) => row.wheels)
        .filter((w) => w.teeth !== null)
        .map((w) => w.path),
    ),
  ];
  const path = paths.find((p) => p === selected?.path) ?? paths[0];
  const stage = path === undefined ? undefined : (at(document, path) as Stage | undefined);
  if (!path || !stage?.driver_teeth || !stage.driven_teeth)
    return <Box color="ink.second">There is no stage with teeth to make a table of.</Box>;
  return <PairsOf key={path} path={path} stage={stage} />;
}

const SPAN = 4;

function PairsOf({ path, stage }: { path: string; stage: Stage }) {
  const units = useUnits();
  const document = useDocument();
  const { faults } = useFigures();
  const [typed, setTyped] = useState({
    drivers: around(Number(stage.driver_teeth), SPAN, units.limits),
    drivens: around(Number(stage.driven_teeth), SPAN, units.limits),
  });
  const drivers = parseCounts(typed.drivers);
  const drivens = parseCounts(typed.drivens);
  const usable = isUsable(drivers, units.limits) && isUsable(drivens, units.limits);
  const grid = useQuery({
    queryKey: ["grid", document, path, drivers, drivens],
    queryFn: () =>
      answer(
        api.POST("/api/grid/", {
          body: { document: document as unknown as Record<string, unknown>, path, drivers, drivens },
        }),
      ),
    enabled: usable && faults.length === 0,
    placeholderData: (old) => old,
    retry: false,
  });
  return (
    <Box data-pairs>
      <Flex gap="3" align="center" wrap="wrap" fontSize="sm" mb="2">
        <Box as="h2" fontWeight="600">
          {units.kinds.of(stage.kind)?.title}: every driver against every driven
        </Box>
        <Counts
          label="Drivers"
          value={typed.drivers}
          ok={isUsable(drivers, units.limits)}
          onChange={(text) => setTyped({ ...typed, drivers: text })}
        />
        <Counts
          label="Driven"
          value={typed.drivens}
          ok={isUsable(drivens, units.limits)}
          onChange={(text) => setTyped({ ...typed, drivens: text })}
        />
        {grid.data && <Ways grid={grid.data} />}
      </Flex>
      {grid.isError && (
        <Box role="alert" color="brick">
          {troubleText(grid.error)}
        </Box>
      )}
      {grid.data && <PairsTable grid={grid.data} />}
    </Box>
  );
}

function Counts({
  label,
  value,
  ok,
  onChange,
}: {
  label: string;
  value: string;
  ok: boolean;
  onChange: (text: string) => void;
}) {
  const id = useId();
  return (
    <Box data-screen-only>
      <label htmlFor={id}>{label} </label>
      <Input
        id={id}
        size="xs"
        w="10em"
        value={value}
        aria-invalid={ok ? undefined : true}
        aria-describedby={ok ? undefined : `${id}-help`}
        onChange={(event) => onChange(event.target.value)}
      />
      {!ok && (
        <Box as="span" id={`${id}-help`} color="brick" role="alert">
          {" "}
          such as 12-18 20, 40 at most
        </Box>
      )}
    </Box>
  );
}

function Ways({ grid }: { grid: Grid }) {
  const units = useUnits();
  return (
    <Flex gap="1" ml="auto" data-screen-only>
      <Button size="xs" onClick={() => window.print()}>
        Print
      </Button>
      <Button size="xs" onClick={() => saveText("pairs.csv", "text/csv", pairsCsv(grid, units))}>
        Save as CSV
      </Button>
    </Flex>
  );
}

function PairsTable({ grid }: { grid: Grid }) {
  const units = useUnits();
  const { edit, readOnly } = useEdit();
  const unit = (dimension: string) => units.entry(dimension)[units.system].symbol;
  const take = (driver: number, driven: number) =>
    edit((old) =>
      withValue(withValue(old, `${grid.path}.driver_teeth`, driver), `${grid.path}.driven_teeth`, driven),
    );
  return (
    <Box overflowX="auto">
      <table className="pairs">
        <caption>
          Overall reduction, distance per motor turn ({unit("length")}), top speed ({unit("speed")})
          {grid.distance !== null &&
            `, time over ${Object.values(show(units, "distance", grid.distance)).join(" ")} (s)`}
          . Marks: the worst of the targets. The present pair is framed.
        </caption>
        <thead>
          <tr>
            <th scope="col">driver \ driven</th>
            {grid.drivens.map((driven) => (
              <th key={driven} scope="col">
                {driven}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {grid.drivers.map((driver, i) => (
            <tr key={driver}>
              <th scope="row">{driver}</th>
              {grid.cells[i]?.map((cell, k) => {
                const driven = grid.drivens[k] as number;
                const here = grid.present[0] === driver && grid.present[1] === driven;
                return (
                  <td key={driven} data-standing={cell.standing} aria-current={here ? "true" : undefined}>
                    {cell.ratio === null ? (
                      "–"
                    ) : (
                      <button
                        type="button"
                        disabled={readOnly}
                        onClick={() => take(driver, driven)}
                        title={`Take ${driver} to ${driven}`}
                        data-pair={`${driver} ${driven}`}
                      >
                        {cell.standing !== "unknown" && <StandingMark standing={cell.standing} size={9} />}{" "}
                        <b>{digits(units.reducing ? cell.ratio : 1 / cell.ratio)}</b>
                        <span>{show(units, "length", cell.per_turn).number}</span>
                        <span>{show(units, "speed", cell.top_speed).number}</span>
                        {grid.distance !== null && <span>{show(units, "time", cell.time).number}</span>}
                      </button>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}

/** One line a pair, SI turned into the units on display. */
export function pairsCsv(grid: Grid, units: Units): string {
  const unit = (dimension: string) => units.entry(dimension)[units.system];
  const value = (dimension: string, si: number | null) =>
    si === null
      ? ""
      : String(Number(((si - unit(dimension).offset) / unit(dimension).factor).toPrecision(6)));
  const head = [
    "driver",
    "driven",
    "overall reduction",
    `per motor turn (${unit("length").symbol})`,
    `top speed (${unit("speed").symbol})`,
    "time (s)",
    "targets",
  ];
  const lines = grid.drivers.flatMap((driver, i) =>
    grid.drivens.map((driven, k) => {
      const cell = grid.cells[i]?.[k];
      if (!cell) return "";
      const { ratio, per_turn, top_speed, time, standing } = cell;
      return [
        driver,
        driven,
        value("ratio", ratio),
        value("length", per_turn),
        value("speed", top_speed),
        value("time", time),
        standing,
      ].join(",");
    }),
  );
  return [head.map((h) => `"${h}"`).join(","), ...lines].join("\r\n");
}
