import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { type KeyboardEvent, memo, type ReactNode, useCallback, useMemo, useRef, useState } from "react";
import type { Fault } from "../../api/client";
import { type PartDocument, partOf, partsOf } from "../../document/bin/bin";
import { type Column, calledPart, cellText, freeId, type PartKind, withCell } from "../../document/bin/cells";
import type { BinOnScreen } from "../../document/bin/useBin";
import { isWithin } from "../../ui/fields/faults";
import { type Units, useUnits } from "../../ui/fields/units";
import { Cell } from "./Cell";

interface Props {
  kind: PartKind;
  bin: BinOnScreen;
  readOnly: boolean;
  /** Other ways to fill the bin, beside the search. */
  tools: ReactNode;
}

interface Order {
  path: string;
  down: boolean;
}

/** The parts of one kind as a table to type in; the last row is the next part. */
export function PartsTable({ kind, bin, readOnly, tools }: Props) {
  const units = useUnits();
  const { state, dispatch } = bin;
  const [filter, setFilter] = useState("");
  const [owned, setOwned] = useState(false);
  const [order, setOrder] = useState<Order | null>(null);
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [drafts, setDrafts] = useState(0);
  const table = useRef<HTMLTableElement>(null);
  const all = useMemo(() => partsOf(state).filter((part) => part.kind === kind.kind), [state, kind]);
  const shown = useMemo(
    () =>
      sorted(
        units,
        kind,
        all.filter((part) => matches(units, kind, part, filter, owned)),
        order,
      ),
    [units, kind, all, filter, owned, order],
  );
  const present = useRef(state);
  present.current = state;

  const change = useCallback(
    (id: string, column: Column, text: string) => {
      const before = partOf(present.current, id);
      if (before)
        dispatch({ type: "edit", changes: [{ id, before, after: withCell(units, column, before, text) }] });
    },
    [dispatch, units],
  );
  const begin = (column: Column, text: string) => {
    const id = freeId(kind.kind, new Set(partsOf(state).map((part) => part.id)));
    const blank = { id, kind: kind.kind, ...structuredClone(kind.fixed), owned: 1 } as PartDocument;
    dispatch({ type: "edit", changes: [{ id, before: null, after: withCell(units, column, blank, text) }] });
    setDrafts(drafts + 1);
  };
  const tick = useCallback(
    (id: string, on: boolean) =>
      setTicked((old) => new Set(on ? [...old, id] : [...old].filter((entry) => entry !== id))),
    [],
  );
  const chosen = shown.filter((part) => ticked.has(part.id));
  const remove = () => {
    dispatch({ type: "edit", changes: chosen.map((part) => ({ id: part.id, before: part, after: null })) });
    setTicked(new Set());
  };
  const copy = () => {
    const taken = new Set(partsOf(state).map((part) => part.id));
    const copies = chosen.map((part) => {
      const id = freeId(kind.kind, taken);
      taken.add(id);
      return { id, before: null, after: { ...part, id } };
    });
    dispatch({ type: "edit", changes: copies });
    setTicked(new Set());
  };

  return (
    <>
      <Flex gap="3" align="center" wrap="wrap" fontSize="sm">
        <Input
          aria-label={`Find among the ${kind.many.toLowerCase()}`}
          placeholder={`find among ${all.length} ${kind.many.toLowerCase()}`}
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
          w="16rem"
          fontFamily="body"
        />
        <label>
          <input type="checkbox" checked={owned} onChange={() => setOwned(!owned)} /> owned only
        </label>
        {chosen.length > 0 && !readOnly && (
          <>
            <Button size="xs" onClick={copy}>
              Copy {chosen.length}
            </Button>
            <Button size="xs" onClick={remove}>
              Take {chosen.length} out
            </Button>
          </>
        )}
        {shown.length !== all.length && (
          <Box color="ink.second">
            {shown.length} of {all.length} shown
          </Box>
        )}
        {tools}
      </Flex>
      {all.length === 0 && (
        <Box color="ink.second">
          No {kind.many.toLowerCase()} yet. {readOnly ? "" : "Type the first one below"}
          {!readOnly && kind.listed ? ", or add many at once." : "."}
        </Box>
      )}
      <Box
        flex="1"
        minH={{ base: "300px", md: "0" }}
        overflow="auto"
        bg="panel"
        borderWidth="1px"
        borderColor="line"
        borderRadius="3px"
        role="region"
        aria-label={kind.many}
        tabIndex={-1}
      >
        <table className="bin" ref={table} onKeyDown={(event) => walk(event, table.current)}>
          <Heads kind={kind} order={order} onOrder={setOrder} />
          <tbody>
            {shown.map((part) => (
              <Row
                key={part.id}
                kind={kind}
                part={part}
                faults={state.faults.get(part.id)}
                ticked={ticked.has(part.id)}
                readOnly={readOnly}
                onChange={change}
                onTick={tick}
              />
            ))}
            {!readOnly && <NextRow key={drafts} kind={kind} onBegin={begin} />}
          </tbody>
        </table>
      </Box>
    </>
  );
}

function Heads({
  kind,
  order,
  onOrder,
}: {
  kind: PartKind;
  order: Order | null;
  onOrder: (order: Order | null) => void;
}) {
  const units = useUnits();
  const unit = (column: Column) =>
    column.type === "quantity" ? units.entry(column.dimension)[units.system].symbol : "";
  const next = (path: string) =>
    onOrder(order?.path !== path ? { path, down: false } : order.down ? null : { path, down: true });
  return (
    <thead>
      <tr>
        <th scope="col">
          <span className="visually-hidden">chosen</span>
        </th>
        {kind.columns.map((column) => (
          <th
            key={column.path}
            scope="col"
            data-type={column.type}
            aria-sort={order?.path === column.path ? (order.down ? "descending" : "ascending") : undefined}
          >
            <button type="button" onClick={() => next(column.path)} title="Put in order">
              {column.head}
              {unit(column) && <span> {unit(column)}</span>}
              {order?.path === column.path && (order.down ? " ↓" : " ↑")}
            </button>
          </th>
        ))}
      </tr>
    </thead>
  );
}

interface RowProps {
  kind: PartKind;
  part: PartDocument;
  faults: Fault[] | undefined;
  ticked: boolean;
  readOnly: boolean;
  onChange: (id: string, column: Column, text: string) => void;
  onTick: (id: string, on: boolean) => void;
}

const Row = memo(function Row({ kind, part, faults, ticked, readOnly, onChange, onTick }: RowProps) {
  const units = useUnits();
  const name = calledPart(units, kind, part);
  return (
    <>
      <tr data-part={part.id}>
        <td>
          {!readOnly && (
            <input
              type="checkbox"
              aria-label={`Choose ${name}`}
              checked={ticked}
              onChange={() => onTick(part.id, !ticked)}
            />
          )}
        </td>
        {kind.columns.map((column) => (
          <td key={column.path}>
            <Cell
              column={column}
              text={cellText(units, column, part)}
              label={`${column.head} of ${name}`}
              faulty={faults?.some((fault) => isWithin(fault, column.path)) ?? false}
              readOnly={readOnly}
              onCommit={(text) => onChange(part.id, column, text)}
            />
          </td>
        ))}
      </tr>
      {faults && (
        <tr className="faults">
          <td />
          <td colSpan={kind.columns.length} role="alert">
            {faults.map((fault) => (
              <span key={fault.path + fault.problem}>
                {kind.columns.find((column) => isWithin(fault, column.path))?.head ?? fault.path}:{" "}
                {fault.problem}, {fault.remedy}.{" "}
              </span>
            ))}
          </td>
        </tr>
      )}
    </>
  );
});

/** Where the next part begins: whatever is typed first makes it. */
function NextRow({ kind, onBegin }: { kind: PartKind; onBegin: (column: Column, text: string) => void }) {
  return (
    <tr data-part="next">
      <td />
      {kind.columns.map((column) => (
        <td key={column.path}>
          <Cell
            column={column}
            text=""
            label={`${column.head} of the next ${kind.one}`}
            hint={column.needed ? column.head : ""}
            faulty={false}
            readOnly={false}
            onCommit={(text) => onBegin(column, text)}
          />
        </td>
      ))}
    </tr>
  );
}

/** Enter and the arrows go from row to row in one column. */
function walk(event: KeyboardEvent, table: HTMLTableElement | null): void {
  const by = { ArrowDown: 1, Enter: 1, ArrowUp: -1 }[event.key];
  const cell = (event.target as HTMLElement).closest("td");
  if (by === undefined || !cell || !table || event.target instanceof HTMLSelectElement) return;
  event.preventDefault();
  const rows = [...table.querySelectorAll<HTMLTableRowElement>("tr[data-part]")];
  const next = rows[rows.indexOf(cell.parentElement as HTMLTableRowElement) + by];
  const field = next?.cells[cell.cellIndex]?.querySelector<HTMLInputElement>("input, select");
  if (field) field.focus();
  else (event.target as HTMLElement).blur();
}

function matches(units: Units, kind: PartKind, part: PartDocument, filter: string, owned: boolean): boolean {
  if (owned && !(Number(part.owned) > 0)) return false;
  const wanted = filter.trim().toLowerCase().split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return true;
  const held = [part.id, ...kind.columns.map((column) => cellText(units, column, part))]
    .join(" ")
    .toLowerCase();
  return wanted.every((word) => held.includes(word));
}

function sorted(units: Units, kind: PartKind, parts: PartDocument[], order: Order | null): PartDocument[] {
  const column = kind.columns.find((c) => c.path === order?.path);
  if (!order || !column) return parts;
  const text = (part: PartDocument) => cellText(units, column, part);
  const compare = (a: PartDocument, b: PartDocument) =>
    text(a).localeCompare(text(b), undefined, { numeric: true }) * (order.down ? -1 : 1);
  // What has no value goes last either way.
  return [...parts].sort((a, b) => Number(text(a) === "") - Number(text(b) === "") || compare(a, b));
}
