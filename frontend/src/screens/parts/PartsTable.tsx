import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { memo, type ReactNode, useMemo, useRef, useState } from "react";
import type { Fault } from "../../api/client";
import { type PartDocument, partsOf } from "../../document/bin/bin";
import { type Column, calledPart, cellText, type PartKind } from "../../document/bin/cells";
import { type Filter, matches, type Order, sorted } from "../../document/bin/order";
import type { BinOnScreen } from "../../document/bin/useBin";
import { keysOf, useCommands } from "../../ui/commands/commands";
import { isWithin } from "../../ui/fields/faults";
import { useUnits } from "../../ui/fields/units";
import { Cell } from "./Cell";
import { useCells } from "./useCells";
import { useTicked } from "./useTicked";
import { useWindowed } from "./useWindowed";
import { walk } from "./walk";

interface Props {
  kind: PartKind;
  bin: BinOnScreen;
  readOnly: boolean;
  /** Other ways to fill the bin, beside the search. */
  tools: ReactNode;
}

const KEYS = keysOf("The table of parts", [
  ["Enter, ↓ ↑", "the same column in the next or the previous row"],
  ["Tab", "the next column"],
]);

/** The parts of one kind as a table to type in; the last row is the next part. */
export function PartsTable({ kind, bin, readOnly, tools }: Props) {
  useCommands(KEYS);
  const units = useUnits();
  const [filter, setFilter] = useState<Filter>({ words: "", owned: false });
  const [order, setOrder] = useState<Order | null>(null);
  const table = useRef<HTMLTableElement>(null);
  const { state } = bin;
  const all = useMemo(() => partsOf(state).filter((part) => part.kind === kind.kind), [state, kind]);
  const shown = useMemo(() => {
    const matching = all.filter((part) => matches(units, kind, part, filter));
    return sorted(units, kind, matching, order);
  }, [units, kind, all, filter, order]);
  const { change, begin, drafts } = useCells(kind, bin);
  const frame = useRef<HTMLDivElement>(null);
  const { inWindow, above, below } = useWindowed(shown, frame, state.faults);
  const { ticked, tick, chosen, remove, copy } = useTicked(bin, shown);
  return (
    <>
      <Flex gap="3" align="center" wrap="wrap" fontSize="sm">
        <Finding kind={kind} all={all.length} filter={filter} onFilter={setFilter} />
        {chosen > 0 && !readOnly && (
          <>
            <Button size="xs" onClick={copy}>
              Copy {chosen}
            </Button>
            <Button size="xs" onClick={remove}>
              Take {chosen} out
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
      {all.length === 0 && <None kind={kind} readOnly={readOnly} />}
      <Box
        ref={frame}
        flex="1"
        minH={{ base: "300px", md: "0" }}
        maxH={{ base: "80vh", md: "none" }}
        overflow="auto"
        bg="panel"
        borderWidth="1px"
        borderColor="line"
        borderRadius="3px"
        role="region"
        aria-label={kind.many}
        tabIndex={-1}
      >
        <table
          className="bin"
          ref={table}
          aria-rowcount={shown.length + 1}
          onKeyDown={(event) => walk(event, table.current)}
        >
          <Heads kind={kind} order={order} onOrder={setOrder} />
          <tbody>
            {above > 0 && <tr aria-hidden style={{ height: above }} />}
            {inWindow.map((part) => (
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
            {below > 0 && <tr aria-hidden style={{ height: below }} />}
            {!readOnly && <NextRow key={drafts} kind={kind} onBegin={begin} />}
          </tbody>
        </table>
      </Box>
    </>
  );
}

interface FindingProps {
  kind: PartKind;
  all: number;
  filter: Filter;
  onFilter: (filter: Filter) => void;
}

function Finding({ kind, all, filter, onFilter }: FindingProps) {
  const many = kind.many.toLowerCase();
  return (
    <>
      <Input
        aria-label={`Find among the ${many}`}
        placeholder={`find among ${all} ${many}`}
        value={filter.words}
        onChange={(event) => onFilter({ ...filter, words: event.target.value })}
        w="16rem"
        fontFamily="body"
      />
      <label>
        <input
          type="checkbox"
          checked={filter.owned}
          onChange={() => onFilter({ ...filter, owned: !filter.owned })}
        />{" "}
        owned only
      </label>
    </>
  );
}

function None({ kind, readOnly }: { kind: PartKind; readOnly: boolean }) {
  return (
    <Box color="ink.second">
      No {kind.many.toLowerCase()} yet. {readOnly ? "" : "Type the first one below"}
      {!readOnly && kind.listed ? ", or add many at once." : "."}
    </Box>
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
