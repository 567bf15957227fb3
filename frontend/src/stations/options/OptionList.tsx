import { Box } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import type { Options } from "../../api/client";
import { usePainted } from "../../document/useAfterPaint";
import { MiniLine } from "../../drawing/MiniLine";
import { ratioText, useUnits } from "../../ui/fields/units";
import { money, whole } from "../../ui/money";
import { runText } from "../../ui/readout/Readout";
import { StandingMark } from "../../ui/StandingMark";
import { percent as percentOf, STANDS } from "../../words/loads";
import { label } from "../../words/measures";

/** Rows that the list shows without scrolling, and one more. */
const AT_FIRST = 8;

interface Props {
  options: Options;
  chosen: number;
  onChoose: (index: number) => void;
  pinned: ReadonlySet<number>;
  onTake: (index: number) => void;
  onPin: (index: number) => void;
  /** Whether options of which a part is over what it stands are left out. */
  sound: boolean;
}

/** Whether a part of an option is over what it stands; searches kept from before say nothing of it. */
export const isOver = (row: Options["rows"][number]) => row.worst?.state === "over";

/** The best options as rows: the line in miniature, margins as marks, price. Up and down walk, Enter takes, P pins. */
export function OptionList({ options, chosen, onChoose, pinned, onTake, onPin, sound }: Props) {
  const list = useRef<HTMLDivElement>(null);
  const painted = usePainted();
  const listed = options.rows
    .slice(0, options.listed)
    .map((row, index) => ({ row, index }))
    .filter(({ row }) => !sound || !isOver(row));
  useEffect(() => {
    // Within the list alone: the screen around it stays where it is.
    const [box, row] = [list.current, document.getElementById(`option-${chosen}`)];
    if (!box || !row) return;
    const top = row.offsetTop - box.offsetTop;
    if (top < box.scrollTop) box.scrollTop = top;
    else if (top + row.offsetHeight > box.scrollTop + box.clientHeight)
      box.scrollTop = top + row.offsetHeight - box.clientHeight;
  }, [chosen]);
  const onKeyDown = (event: React.KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by !== undefined) {
      event.preventDefault();
      const here = listed.findIndex(({ index }) => index === chosen);
      const next = listed[Math.min(listed.length - 1, Math.max(0, here + by))];
      if (next) onChoose(next.index);
    }
    if (event.key === "Enter") onTake(chosen);
    if (event.key.toLowerCase() === "p" && !event.ctrlKey) onPin(chosen);
  };
  return (
    <Box
      ref={list}
      role="listbox"
      aria-label="Options, the best first"
      aria-activedescendant={`option-${chosen}`}
      tabIndex={0}
      onKeyDown={onKeyDown}
      maxH={{ md: "300px" }}
      position="relative"
      overflowY="auto"
      borderTopWidth="1px"
      borderColor="line"
      data-options
    >
      {(painted ? listed : listed.slice(0, AT_FIRST)).map(({ row, index }) => (
        <Row
          key={index}
          options={options}
          row={row}
          index={index}
          chosen={index === chosen}
          drawn={painted}
          pinned={pinned.has(index)}
          onChoose={onChoose}
        />
      ))}
    </Box>
  );
}

interface RowProps {
  options: Options;
  row: Options["rows"][number];
  index: number;
  chosen: boolean;
  /** The lines follow the figures. */
  drawn: boolean;
  pinned: boolean;
  onChoose: (index: number) => void;
}

function Row({ options, row, index, chosen, drawn, pinned, onChoose }: RowProps) {
  const units = useUnits();
  const [worst] = [...row.targets].sort((a, b) => (a.margin ?? -1) - (b.margin ?? -1));
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the list has the keys
    // biome-ignore lint/a11y/useFocusableInteractive: the list has the focus, and says which row is meant
    <div
      id={`option-${index}`}
      role="option"
      aria-selected={chosen}
      className="option"
      onClick={() => onChoose(index)}
      onMouseMove={() => chosen || onChoose(index)}
      data-rank={index}
    >
      <div className="rank">
        {index + 1}
        {pinned && <span title="pinned"> •</span>}
      </div>
      <div>{drawn && row.line && <MiniLine line={row.line} name={`option ${index + 1}`} />}</div>
      <div>
        {/* A pair is not broken between its two wheels. */}
        <div className="words">
          {row.words.replaceAll(" : ", "\u00a0:\u00a0") || "straight to the wheels"}
        </div>
        <div className="margins">
          {ratioText(units, row.ratio)}
          {row.targets.map((target, i) => {
            const measure = options.measures[i] as Options["measures"][number];
            return (
              <span
                key={`${measure.measure} ${measure.at} ${measure.wanted}`}
                title={`${label(measure.measure, runText(measure, units))} ${measure.wanted}: ${percent(target.margin)}`}
              >
                <StandingMark standing={target.standing} size={11} />
                {target === worst && percent(target.margin)}
              </span>
            );
          })}
          {row.worst && row.worst.use !== null && (
            <span title={row.worst.words} data-worst={row.worst.state}>
              <StandingMark standing={STANDS[row.worst.state]} size={11} /> loads {percentOf(row.worst.use)}
            </span>
          )}
          {!row.mounts && <span data-not-on-plate>not on this plate</span>}
          {(row.ways ?? 1) > 1 && <span data-ways>{waysText(row)}</span>}
        </div>
      </div>
      <div className="price">{row.buy === 0 ? "owned" : money(row.price)}</div>
    </div>
  );
}

/** "14 ways, from 0 marks, 6 from the bin alone". */
export function waysText({ ways, from_price, from_bin }: Options["rows"][number]): string {
  const owned =
    from_bin === ways ? "all from the bin alone" : from_bin > 0 && `${whole(from_bin)} from the bin alone`;
  return [`${whole(ways ?? 1)} ways`, `from ${money(from_price)}`, owned].filter(Boolean).join(", ");
}

/** A margin as a signed share of what is wanted. */
export function percent(margin: number | null): string {
  if (margin === null) return "–";
  const share = Math.round(1000 * margin) / 10;
  const text = Math.abs(share) >= 10 ? share.toFixed(0) : share.toFixed(1);
  return `${share > 0 ? "+" : ""}${text.replace("-", "−")} %`;
}
