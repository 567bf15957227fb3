import { type DragEvent, type KeyboardEvent, useState } from "react";
import type { Live } from "../../../api/client";
import { useDocument, useEdit, useFigures, useLoadsShown } from "../../../document/context";
import { at, type DesignDocument, type Stage } from "../../../document/document";
import { isSelected, SUPPLY } from "../../../document/selected";
import { dropStage, selectedOf } from "../../../document/stages";
import { typedText } from "../../../ui/fields/typed";
import { digits, ratioText, useKinds, useUnits } from "../../../ui/fields/units";
import { StandingMark } from "../../../ui/StandingMark";
import { measureKeys, type StageKind } from "../../../words/kinds";
import { ofMember, percent, STANDS } from "../../../words/loads";
import { useChange } from "./StageActions";

/** The supply and the stages as a sentence from source to ground, each with its ratio; dragged to another place, or clicked. */
export function StageStrip({ onSweep }: { onSweep: (by: number) => void }) {
  const document = useDocument();
  const { live } = useFigures();
  const lists = [...document.drive.branches.map((_, b) => `drive.branches[${b}].stages`), "drive.stages"];
  return (
    // What stands beside the strip goes on in its last line.
    <div style={{ display: "contents" }} data-strip>
      <SupplyChip onSweep={onSweep} />
      {lists.map((list, i) => (
        <List key={list} list={list} document={document} live={live} joins={i > 0} />
      ))}
      <Overall live={live} />
    </div>
  );
}

/** What feeds the motors: clicked it is chosen, and ↑ ↓ change its cells. */
function SupplyChip({ onSweep }: { onSweep: (by: number) => void }) {
  const { drive } = useDocument();
  const { selected } = useFigures();
  const { select } = useEdit();
  const supply = drive.supply as SupplyTyped | undefined;
  if (!supply) return null;
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onSweep(by);
  };
  return (
    <button
      type="button"
      className="chip"
      aria-pressed={isSelected(selected, SUPPLY.path, SUPPLY.member)}
      onClick={() => select(SUPPLY)}
      onKeyDown={onKeyDown}
      data-chip={SUPPLY.path}
    >
      {supply.kind} <b>{voltageText(supply)}</b>
    </button>
  );
}

interface SupplyTyped {
  kind: string;
  cells?: { series?: unknown; cell_voltage?: unknown };
  open_circuit_voltage?: unknown;
  max_power_voltage?: unknown;
  voltage?: unknown;
}

/** "7 × 3.6 V", or its voltage as typed. */
function voltageText({ cells, ...supply }: SupplyTyped): string {
  if (cells) return `${typedText(cells.series, "")} × ${typedText(cells.cell_voltage, "V")}`;
  return typedText(supply.max_power_voltage ?? supply.open_circuit_voltage ?? supply.voltage, "V");
}

interface ListProps {
  list: string;
  document: DesignDocument;
  live: Live;
  joins: boolean;
}

function List({ list, document, live, joins }: ListProps) {
  const stages = (at(document, list) as Stage[] | undefined) ?? [];
  const several = document.drive.branches.length > 1;
  const branch = /\[(\d+)\]/.exec(list)?.[1];
  return (
    <>
      {several && (
        <div className="list">
          {branch === undefined ? "joined:" : `${joins ? "+ " : ""}branch ${Number(branch) + 1}:`}
        </div>
      )}
      {stages.map((stage, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a stage is its place in the line
        <Chip key={i} stage={stage} path={`${list}[${i}]`} live={live} />
      ))}
    </>
  );
}

const DRAGGED = "text/x-ydrometer-stage";

function Chip({ stage, path, live }: { stage: Stage; path: string; live: Live }) {
  const { selected } = useFigures();
  const { select, readOnly } = useEdit();
  const units = useUnits();
  const change = useChange();
  const kinds = useKinds();
  const kind = kinds.of(stage.kind);
  const [over, setOver] = useState(false);
  const ratio = live.ratios.find((r) => r.path === path)?.ratio;
  const chosen = selected?.path === path;
  const loaded = ofMember(useLoadsShown()?.parts ?? [], path, "");
  const clash = live.clashes?.find((entry) => entry.path === path && entry.level === "clash");
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    const from = event.dataTransfer.getData(DRAGGED);
    if (from) change((old, known) => dropStage(known, old, from, path));
  };
  return (
    <button
      type="button"
      className="chip"
      draggable={!readOnly}
      aria-pressed={chosen}
      data-over={over || undefined}
      onClick={() => select(selectedOf(kinds, path, stage))}
      onDragStart={(event) => event.dataTransfer.setData(DRAGGED, path)}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
      data-chip={path}
      title={clash && `does not fit: ${clash.text}`}
    >
      {clash && (
        <span className="clash" data-chip-clash>
          <StandingMark standing="misses" /> fit
        </span>
      )}
      {loaded && loaded.state !== "unknown" && (
        <span
          className="load"
          title={`${percent(loaded.use ?? 0)} of what it stands`}
          data-chip-load={loaded.state}
        >
          <StandingMark standing={STANDS[loaded.state]} size={11} />
          {loaded.state === "over" && loaded.use !== null && ` ${percent(loaded.use)}`}
        </span>
      )}
      {kind?.short ?? stage.kind} <b>{sizesText(kind, stage)}</b>{" "}
      {ratio !== undefined && <span>{digits(units.reducing ? ratio : 1 / ratio)}</span>}
    </button>
  );
}

/** Teeth, or diameters as typed, of driver and driven; empty of a closed box. */
function sizesText(kind: StageKind | undefined, stage: Stage): string {
  const sizes = (measureKeys(kind) ?? []).map((key) => typedText(stage[key], kind?.toothed ? "" : "m"));
  return sizes.join(" → ");
}

function Overall({ live }: { live: Live }) {
  const units = useUnits();
  return (
    <div className="overall" data-overall>
      = <b>{ratioText(units, live.view.ratio)}</b>
    </div>
  );
}
