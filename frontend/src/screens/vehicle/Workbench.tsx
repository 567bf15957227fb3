import { Box, Button } from "@chakra-ui/react";
import { memo, Suspense, useCallback, useState } from "react";
import { Link, Navigate } from "react-router";
import type { Other } from "../../api/client";
import { Conflict } from "../../document/Conflict";
import { type Asked, type Edit, WorkProvider } from "../../document/context";
import type { DesignDocument } from "../../document/document";
import { saveDesignFile } from "../../document/files";
import { LeftBehind, Strip } from "../../document/Unsaved";
import { revisionOf, type SaveState } from "../../document/useAutosave";
import { BriefStation } from "../../stations/brief/BriefStation";
import { LineStation } from "../../stations/line/LineStation";
import { DownloadLink } from "../../ui/DownloadLink";
import { useUnits } from "../../ui/fields/units";
import { Guarded } from "../../ui/frame/Guarded";
import { part } from "../../ui/frame/part";
import { TopBar } from "../../ui/frame/TopBar";
import { UndoRedo } from "../../ui/frame/UndoRedo";
import { useTitle } from "../../ui/frame/useTitle";
import { Readout } from "../../ui/readout/Readout";
import { hour, moment } from "../../ui/when";
import { STATION_NAMES, type StationKey } from "../../words/stations";
import { Scratch } from "./Scratch";
import { StationList } from "./StationList";
import { useWork, type Vehicle, type Work } from "./useWork";
import { useWorkCommands } from "./useWorkCommands";

const WorkingDrawer = part(() => import("../../document/working/WorkingDrawer").then((m) => m.default));

const OptionsStation = part(() =>
  import("../../stations/options/OptionsStation").then((m) => m.OptionsStation),
);
const FitStation = part(() => import("../../stations/fit/FitStation").then((m) => m.FitStation));
const LoadsStation = part(() => import("../../stations/loads/LoadsStation").then((m) => m.LoadsStation));
const PartsStation = part(() => import("../../stations/parts/PartsStation").then((m) => m.PartsStation));
const BuildStation = part(() => import("../../stations/build/BuildStation").then((m) => m.BuildStation));
const RunsStation = part(() => import("../../stations/runs/RunsStation").then((m) => m.RunsStation));
const STATIONS: Record<StationKey, React.ComponentType> = {
  brief: memo(BriefStation),
  line: memo(LineStation),
  options: memo(OptionsStation),
  fit: memo(FitStation),
  loads: memo(LoadsStation),
  parts: memo(PartsStation),
  build: memo(BuildStation),
  runs: memo(RunsStation),
};
/** One vehicle with everything around it: stations, readout, undo, saving. */
export function Workbench(opened: Vehicle) {
  const { owner, workshop, station, readOnly } = opened;
  const { vehicle } = owner;
  const work = useWork(opened);
  const { document, live, faults, figures, uncertainties } = work;
  const [asked, setAsked] = useState<Asked | null>(null);
  useTitle(`${document.name || "Unnamed vehicle"}, ${STATION_NAMES[station as StationKey] ?? station}`);
  const ask = useCallback((gauge: Asked) => setAsked(gauge), []);
  useWorkCommands(work, vehicle, ask);
  const Station = STATIONS[station as StationKey] as React.ComponentType | undefined;
  if (!Station) return <Navigate to={`/vehicles/${vehicle}/line`} replace />;
  return (
    <div className="workbench">
      <Head
        name={document.name}
        words={readOnly ? "you may look, not change" : saveWords(work.saving.state)}
        kind={work.saving.state.kind}
        others={work.others}
        undoable={work.past.past.length > 0}
        redoable={work.past.future.length > 0}
        {...{ workshop, vehicle, dispatch: work.dispatch, present: work.edit.present }}
      />
      <Trouble work={work} />
      <Unsaved work={work} opened={opened} />
      {opened.scratch && <Scratch vehicle={vehicle} />}
      <div className="beside">
        <StationList
          vehicle={vehicle}
          workshop={workshop}
          live={live}
          loads={work.loads}
          parts={work.parts}
          targets={document.targets?.length ?? 0}
        />
        <main>
          {figures ? (
            <WorkProvider
              place={work.place}
              edit={work.edit}
              figures={figures}
              mounted={work.mounted}
              loads={work.loads}
              parts={work.parts}
              onAsk={ask}
              document={work.painted}
            >
              <Guarded>
                <Suspense fallback={<Box role="status" aria-label="Loading" />}>
                  <Station />
                </Suspense>
              </Guarded>
            </WorkProvider>
          ) : (
            faults.length > 0 && (
              <Unreadable faults={faults.map((f) => `${f.path}: ${f.problem}, ${f.remedy}`)} />
            )
          )}
        </main>
      </div>
      <div className="foot">
        {live && (
          <Readout gauges={live.gauges} uncertainties={uncertainties} stale={faults.length > 0} onAsk={ask} />
        )}
      </div>
      {asked && (
        <Suspense fallback={null}>
          <WorkingDrawer
            vehicle={vehicle}
            asked={asked}
            document={document}
            onAsk={ask}
            onClose={() => setAsked(null)}
          />
        </Suspense>
      )}
    </div>
  );
}

interface HeadProps {
  name: string | undefined;
  /** Whether it is saved. */
  words: string;
  kind: SaveState["kind"];
  undoable: boolean;
  redoable: boolean;
  workshop: string;
  vehicle: string;
  others: Other[];
  dispatch: Work["dispatch"];
  present: Edit["present"];
}

/** Who else is at this vehicle now, each with the way to where they are. */
function Others({ others }: { others: Other[] }) {
  return (
    <Box data-others>
      {others.map(({ username, station }) => (
        <Box as="span" key={username} mr="2">
          <Box as="span" fontWeight="600">
            {username}
          </Box>{" "}
          is at{" "}
          <Link to={`../${station}`} relative="path">
            {STATION_NAMES[station as StationKey] ?? station}
          </Link>
        </Box>
      ))}
    </Box>
  );
}

/** The vehicle's name, whether it is saved, undo and export. */
const Head = memo(function Head({
  name,
  words,
  kind,
  others,
  workshop,
  vehicle,
  present,
  ...steps
}: HeadProps) {
  const { system } = useUnits();
  return (
    <TopBar
      workshop={workshop}
      saved={{ kind, words }}
      others={others.length > 0 && <Others others={others} />}
    >
      <Box as="h1" fontWeight="600">
        {name || "Unnamed vehicle"}
      </Box>
      <UndoRedo {...steps}>
        <Button size="xs" onClick={() => saveDesignFile(present())}>
          Export
        </Button>
        <Button asChild size="xs" hideBelow="md">
          <DownloadLink href={`/api/vehicles/${vehicle}/sheet/?system=${system}`}>Sheet</DownloadLink>
        </Button>
      </UndoRedo>
    </TopBar>
  );
});

/** That there is no answer, or that somebody else has saved. */
function Trouble({ work }: { work: Work }) {
  const { trouble, saving, document, dispatch } = work;
  const { state, base, rebase } = saving;
  return (
    <>
      {trouble && (
        <Box role="alert" bg="copper.wash" px="4" py="1">
          {trouble}
        </Box>
      )}
      {state.kind === "conflict" && (
        <Conflict
          conflict={state.conflict}
          base={base.current.document}
          mine={document}
          onDecide={(decided) => {
            rebase(revisionOf(state.conflict));
            dispatch({ type: "edit", edit: () => decided });
          }}
        />
      )}
    </>
  );
}

/** What was typed here or in other tabs and never saved, and what others have saved. */
function Unsaved({ work, opened }: { work: Work; opened: Vehicle }) {
  const { document, dispatch, saving, news, dropNews } = work;
  const take = (next: DesignDocument) => dispatch({ type: "edit", edit: () => next });
  const { account, vehicle } = opened.owner;
  return (
    <>
      {opened.typedAt && saving.state.kind === "waiting" && (
        <Strip>
          <Box>Open again: what was typed at {moment(opened.typedAt)} and not saved.</Box>
          <Button size="xs" onClick={() => take(saving.base.current.document)}>
            Drop it (Undo brings it back)
          </Button>
        </Strip>
      )}
      <LeftBehind account={account} vehicle={vehicle} left={opened.left} present={document} onTake={take} />
      {news && (
        <Strip>
          <Box>{news}</Box>
          <Button size="xs" variant="outline" onClick={dropNews}>
            All right
          </Button>
        </Strip>
      )}
    </>
  );
}

function Unreadable({ faults }: { faults: string[] }) {
  return (
    <Box role="alert">
      <p>
        This design cannot be read. It is kept as it is; undo, or take an earlier revision from its history.
      </p>
      <ul>
        {faults.map((fault) => (
          <li key={fault}>{fault}</li>
        ))}
      </ul>
      <Link to="/">Go to the bench</Link>
    </Box>
  );
}

function saveWords(state: SaveState): string {
  switch (state.kind) {
    case "saved":
      return `saved ${hour(state.at)}`;
    case "unsaved":
      return "not saved yet";
    case "saving":
      return "saving";
    case "waiting":
      return `not saved yet: ${state.why}`;
    case "conflict":
      return "not saved: somebody else changed the same";
  }
}
