import { Box, Button, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { carried } from "../../design/carried";
import { at, type DesignDocument, type Stage } from "../../design/document";
import { show, useUnits } from "../../fields/units";
import { gaugeLabel } from "../../readout/Readout";
import { STAGE_WORDS } from "../../words/measures";
import { useDocument, useEdit, useFigures } from "../context";
import {
  addStage,
  type Changed,
  changeKind,
  duplicateStage,
  moveStage,
  NEW_STAGES,
  placeOf,
  removeStage,
  swapMembers,
} from "./stages";
import { useWhatIf } from "./useWhatIf";

export const KINDS = Object.keys(NEW_STAGES) as Stage["kind"][];

/** A way to make a change and to select what it made. */
export function useChange(): (change: (document: DesignDocument) => Changed) => void {
  const { edit, select, present } = useEdit();
  return (change) => {
    const made = change(present());
    if (made.document === present()) return;
    edit((old) => carried(old, made.document));
    select(made.selected);
  };
}

/** Stages are added after the selected one, moved, doubled, turned into another kind or taken out. */
export function StageActions({ path }: { path: string }) {
  const document = useDocument();
  const { live } = useFigures();
  const { readOnly } = useEdit();
  const change = useChange();
  const [swapping, setSwapping] = useState(false);
  if (readOnly) return null;
  const stage = placeOf(path) ? (at(document, path) as Stage | undefined) : undefined;
  const ratio = live.ratios.find((r) => r.path === path)?.ratio ?? 1;
  const swapped = stage ? swapMembers(document, path) : null;
  return (
    <Box mt="3" data-screen-only>
      <Flex gap="1" wrap="wrap" align="center">
        <KindChoice
          label="Add a stage after this"
          onChoose={(kind) => change((old) => addStage(old, path, kind))}
        />
        {stage && (
          <>
            <KindChoice
              label="Change the kind"
              except={stage.kind}
              onChoose={(kind) => change((old) => changeKind(old, path, kind, ratio))}
            />
            <Button size="xs" title="Shift ←" onClick={() => change((old) => moveStage(old, path, -1))}>
              Earlier
            </Button>
            <Button size="xs" title="Shift →" onClick={() => change((old) => moveStage(old, path, 1))}>
              Later
            </Button>
            <Button size="xs" title="D" onClick={() => change((old) => duplicateStage(old, path))}>
              Double
            </Button>
            {swapped && (
              <Button size="xs" aria-expanded={swapping} onClick={() => setSwapping(!swapping)}>
                Swap driver and driven
              </Button>
            )}
            <Button size="xs" title="Del" onClick={() => change((old) => removeStage(old, path))}>
              Remove this stage
            </Button>
          </>
        )}
      </Flex>
      {swapping && swapped && <SwapPreview path={path} swapped={swapped} onDone={() => setSwapping(false)} />}
    </Box>
  );
}

function KindChoice({
  label,
  except,
  onChoose,
}: {
  label: string;
  except?: Stage["kind"];
  onChoose: (kind: Stage["kind"]) => void;
}) {
  return (
    <select
      className="plain small"
      aria-label={label}
      value=""
      onChange={(event) => onChoose(event.target.value as Stage["kind"])}
    >
      <option value="">{label}</option>
      {KINDS.filter((kind) => kind !== except).map((kind) => (
        <option key={kind} value={kind}>
          {STAGE_WORDS[kind]}
        </option>
      ))}
    </select>
  );
}

/** What it would do, before it is done: the ratio turns over, and with it nearly every figure. */
function SwapPreview({
  path,
  swapped,
  onDone,
}: {
  path: string;
  swapped: DesignDocument;
  onDone: () => void;
}) {
  const { live } = useFigures();
  const { edit } = useEdit();
  const units = useUnits();
  const then = useWhatIf(swapped);
  const rows = live.gauges.slice(0, 4).map((gauge, i) => ({ gauge, other: then?.gauges[i] }));
  const ratio = live.ratios.find((r) => r.path === path)?.ratio ?? 1;
  const other = then?.ratios.find((r) => r.path === path)?.ratio;
  const text = (dimension: string, si: number | null | undefined) => show(units, dimension, si).number;
  return (
    <Box mt="2" p="2" borderWidth="1px" borderColor="line" borderRadius="3px" fontSize="sm" data-swap>
      <table className="working">
        <thead>
          <tr>
            <td />
            <th scope="col">now</th>
            <th scope="col">then</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">This stage</th>
            <td>{text("ratio", ratio)}</td>
            <td>{text("ratio", other)}</td>
          </tr>
          {rows.map(({ gauge, other: changed }) => (
            <tr key={`${gauge.measure} ${gauge.target}`}>
              <th scope="row">{gaugeLabel(gauge, units)}</th>
              <td>{text(gauge.dimension, gauge.value)}</td>
              <td>{text(gauge.dimension, changed?.value)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Flex gap="1" mt="1">
        <Button
          size="xs"
          variant="solid"
          onClick={() => {
            edit(() => swapped);
            onDone();
          }}
        >
          Swap them
        </Button>
        <Button size="xs" onClick={onDone}>
          Leave it
        </Button>
      </Flex>
    </Box>
  );
}
