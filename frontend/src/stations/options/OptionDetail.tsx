import { Box, Button, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { Options } from "../../api/client";
import { useEdit } from "../../document/context";
import { change, ratioText, show, useUnits } from "../../ui/fields/units";
import { money, whole } from "../../ui/money";
import { runText } from "../../ui/readout/Readout";
import { StandingMark } from "../../ui/StandingMark";
import { STANDS } from "../../words/loads";
import { label } from "../../words/measures";

interface Props {
  options: Options;
  index: number;
  pinned: boolean;
  /** Puts a design on the bench: the option's own, or another way to the same. */
  onTake: (design: Record<string, unknown>) => void;
  onPin: () => void;
}

const USUAL = ["top_speed", "pushing_force", "max_grade"];

/** The targets; where there are none, what people look at first. */
function shownMeasures(options: Options): Options["measures"] {
  const wanted = options.measures.filter((m) => m.wanted);
  return wanted.length > 0 ? wanted : options.measures.filter((m) => USUAL.includes(m.measure));
}

/** The chosen option against the present design: what changes, what comes of it, what has to be bought. */
export function OptionDetail({ options, index, pinned, onTake, onPin }: Props) {
  const units = useUnits();
  const { readOnly } = useEdit();
  const row = options.rows[index];
  if (!row) return null;
  const bought = row.uses.filter((use) => use.buy > 0);
  return (
    <Box data-detail aria-live="polite">
      <Flex align="baseline" gap="2">
        <Box as="h2" fontWeight="700">
          {index < options.listed
            ? `Option ${index + 1}`
            : `The best at about ${ratioText(units, row.ratio)}`}
        </Box>
        <Box color="ink.second" fontSize="sm">
          against the present design
        </Box>
      </Flex>
      <Box fontSize="13.5px" minH="2.8em">
        <b>{row.words}</b>: {row.changes.join(", ") || "nothing is changed: it is the present design"}
      </Box>
      <table className="working" style={{ marginTop: "4px", fontSize: "13.5px" }}>
        <tbody>
          {shownMeasures(options).map((measure) => {
            const i = options.measures.indexOf(measure);
            const shown = show(units, measure.dimension, row.values[i]);
            const target = row.targets[i];
            return (
              <tr key={`${measure.measure} ${measure.at} ${measure.wanted}`}>
                <th scope="row">
                  {target && <StandingMark standing={target.standing} size={10} />}{" "}
                  {label(measure.measure, runText(measure, units))}
                </th>
                <td>
                  <b>{shown.number}</b> {shown.unit}
                </td>
                <td>{change(units, measure.dimension, row.values[i] ?? null, options.present[i])}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {row.worst && (
        <Flex gap="2" fontSize="13px" mt="1" data-worst-words>
          <Box pt="1">
            <StandingMark standing={STANDS[row.worst.state]} size={11} />
          </Box>
          {row.worst.words}
        </Flex>
      )}
      <Box fontSize="13px" mt="1">
        {bought.length === 0 ? (
          "All of it is owned."
        ) : (
          <>
            Buy for {money(row.price)}:{" "}
            {bought
              .map(
                (use) =>
                  `${use.buy} × ${use.name}${use.price === null ? " (no price)" : ` at ${money(use.price)}`}`,
              )
              .join("; ")}
          </>
        )}
      </Box>
      <Flex gap="2" mt="2">
        <Button variant="solid" disabled={readOnly} onClick={() => onTake(row.design)} title="Enter">
          Put on the bench
        </Button>
        <Button aria-pressed={pinned} onClick={onPin} title="P">
          {pinned ? "Unpin" : "Pin"}
        </Button>
      </Flex>
      <OtherWays key={index} row={row} readOnly={readOnly} onTake={onTake} />
    </Box>
  );
}

interface WaysProps {
  row: Options["rows"][number];
  readOnly: boolean;
  onTake: Props["onTake"];
}

/** Other parts that do the same, the best first. */
function OtherWays({ row, readOnly, onTake }: WaysProps) {
  const [open, setOpen] = useState(false);
  const others = (row.ways ?? 1) - 1;
  if (row.others.length === 0) return null;
  return (
    <Box mt="2" fontSize="13px" data-other-ways>
      <button type="button" className="linkish" aria-expanded={open} onClick={() => setOpen(!open)}>
        {others === 1 ? "The other way to the same" : `${whole(others)} other ways to the same`}
      </button>
      {open && (
        <Box as="ul" listStyleType="none" p="0">
          {row.others.map((way) => (
            <Flex as="li" key={`${way.words} ${way.price} ${way.buy}`} gap="2" align="center" py="1">
              <Box flex="1">
                {way.words}
                <Box as="span" color="ink.second">
                  {way.buy === 0 ? ", owned" : `, ${way.buy} to buy for ${money(way.price)}`}
                  {!way.mounts && ", not on this plate"}
                </Box>
              </Box>
              <Button size="xs" disabled={readOnly} onClick={() => onTake(way.design)}>
                Take this
              </Button>
            </Flex>
          ))}
          {others > row.others.length && (
            <Box as="li" color="ink.second">
              and {whole(others - row.others.length)} more: narrow the overall ratio to see them
            </Box>
          )}
        </Box>
      )}
    </Box>
  );
}
