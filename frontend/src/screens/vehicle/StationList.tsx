import { memo, useEffect, useRef } from "react";
import { NavLink, useLocation } from "react-router";
import type { Live, Loads, PartsAnswer, Standing } from "../../api/client";
import { useBuild } from "../../document/useBuild";
import { useLastRuns } from "../../document/useLastRuns";
import { useSearchList } from "../../stations/options/useSearches";
import { ratioText, useUnits } from "../../ui/fields/units";
import { Rail } from "../../ui/frame/Rail";
import { StandingMark } from "../../ui/StandingMark";
import { percent, STANDS } from "../../words/loads";
import { STATION_NAMES, STATIONS, type StationKey } from "../../words/stations";

/** The stations in the order of the work, each with its state and its one figure. */
export const StationList = memo(function StationList({
  vehicle,
  workshop,
  live,
  loads,
  parts,
  targets,
}: {
  vehicle: string;
  workshop: string;
  live: Live | null;
  loads: Loads | null;
  parts: PartsAnswer | null;
  targets: number;
}) {
  const units = useUnits();
  const options = useOptionsFigure(workshop, vehicle);
  const runs = useRunsFigure(workshop, vehicle);
  const build = useBuildFigure(vehicle);
  const rail = useRef<HTMLDivElement>(null);
  const { pathname } = useLocation();
  // biome-ignore lint/correctness/useExhaustiveDependencies: on a phone the present station comes into sight
  useEffect(() => {
    const here = rail.current?.querySelector("[aria-current=page]");
    here?.scrollIntoView?.({ inline: "center", block: "nearest" });
  }, [pathname]);
  const met =
    live?.gauges.filter((g) => g.target !== null && (g.standing === "holds" || g.standing === "tight"))
      .length ?? 0;
  const figures: Record<StationKey, { standing: Standing; figure: string }> = {
    brief: { standing: worst(live), figure: targets ? `${met} of ${targets} met` : "no targets yet" },
    line: { standing: lineStanding(live), figure: live ? ratioText(units, live.view.ratio) : "" },
    options,
    fit: fitFigure(live),
    loads: loadsFigure(loads),
    parts: partsFigure(parts),
    build,
    runs,
  };
  return (
    <Rail
      ref={rail}
      aria-label="Stations"
      pt={{ md: "3" }}
      overflowX={{ base: "auto", md: "visible" }}
      data-screen-only
    >
      {STATIONS.map((station) => (
        <NavLink key={station} to={`/vehicles/${vehicle}/${station}`} className="station">
          <StandingMark standing={figures[station].standing} />
          <div>
            <div className="name">{STATION_NAMES[station]}</div>
            <div className="figure">{figures[station].figure}</div>
          </div>
        </NavLink>
      ))}
    </Rail>
  );
});

/** How many options of the newest search meet every target. */
function useOptionsFigure(workshop: string, vehicle: string): { standing: Standing; figure: string } {
  const newest = useSearchList(workshop, vehicle).data?.find((search) => search.meeting !== null);
  if (!newest) return { standing: "unknown", figure: "not searched" };
  return { standing: newest.meeting ? "holds" : "misses", figure: `${newest.meeting ?? 0} meet all` };
}

/** How many things are still to come, and whether they cost more than there is. */
function partsFigure(parts: PartsAnswer | null): { standing: Standing; figure: string } {
  if (!parts) return { standing: "unknown", figure: "" };
  const { open, spent, to_spend, budget } = parts.shown;
  const over = budget !== null && spent + to_spend > budget;
  const figure = open ? `${open} to come` : "all here";
  return { standing: over ? "misses" : open ? "tight" : "holds", figure };
}

/** How many steps are done, and what is loose. */
function useBuildFigure(vehicle: string): { standing: Standing; figure: string } {
  const shown = useBuild(vehicle, false).data?.shown;
  if (!shown) return { standing: "unknown", figure: "" };
  const figure = `${shown.done}/${shown.steps.length}`;
  if (shown.signed_at) return { standing: "holds", figure: "signed off" };
  if (!shown.done) return { standing: "unknown", figure };
  const loose = shown.loose.length;
  return {
    standing: loose || shown.plan?.late_by_days ? "tight" : "unknown",
    figure: loose ? `${figure}, ${loose} loose` : figure,
  };
}

/** How many runs there are, and how far the last one was off. */
function useRunsFigure(workshop: string, vehicle: string): { standing: Standing; figure: string } {
  const last = useLastRuns(workshop).data?.find((run) => run.vehicle === vehicle);
  if (!last) return { standing: "unknown", figure: "none yet" };
  const { count, off } = last;
  if (off === null) return { standing: "unknown", figure: `${count}` };
  const share = Math.abs(off);
  const standing = share <= GOOD ? "holds" : share <= FAIR ? "tight" : "misses";
  return { standing, figure: `${count}, off by ${Math.round(100 * share)} %` };
}

/** Up to which a prediction counts as good, and as fair. */
const [GOOD, FAIR] = [0.04, 0.1];

/** It starts, its branches pull together, and it rolls forwards as far as the drawing can tell. */
function lineStanding(live: Live | null): Standing {
  if (!live) return "unknown";
  const { forwards, known, against } = live.rotation;
  if (live.state !== "ok" || against.length > 0 || (known && !forwards)) return "misses";
  return known ? "holds" : "unknown";
}

/** How many things do not go together on the plate. */
function fitFigure(live: Live | null): { standing: Standing; figure: string } {
  if (!live?.clashes) return { standing: "unknown", figure: "not mounted" };
  const count = live.clashes.filter((clash) => clash.level === "clash").length;
  if (count) return { standing: "misses", figure: count === 1 ? "1 clash" : `${count} clashes` };
  return { standing: live.clashes.length ? "tight" : "holds", figure: "no clash" };
}

/** The largest use, in percent. */
function loadsFigure(loads: Loads | null): { standing: Standing; figure: string } {
  if (!loads) return { standing: "unknown", figure: "" };
  return { standing: STANDS[loads.state], figure: loads.use === null ? "not known" : percent(loads.use) };
}

const ORDER: Standing[] = ["misses", "tight", "holds"];

function worst(live: Live | null): Standing {
  const matching = live?.gauges.filter((g) => g.target !== null).map((g) => g.standing) ?? [];
  return ORDER.find((standing) => matching.includes(standing)) ?? "unknown";
}
