import { Box, Button, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { carried } from "../../../document/carried";
import { useDocument, useEdit, useFigures } from "../../../document/context";
import { at, type DesignDocument, type Stage } from "../../../document/document";
import {
  addStage,
  type Changed,
  duplicateStage,
  moveStage,
  placeOf,
  removeStage,
  selectedOf,
  swapMembers,
} from "../../../document/stages";
import { useChoice } from "../../../document/useChoice";
import { show, useKinds, useUnits } from "../../../ui/fields/units";
import { gaugeLabel } from "../../../ui/readout/Readout";
import { Trouble } from "../../../ui/Trouble";
import type { Kinds, StageKind } from "../../../words/kinds";
import { useWhatIf } from "../useWhatIf";

/** A way to make a change and to select what it made. */
export function useChange(): (change: (document: DesignDocument, kinds: Kinds) => Changed) => void {
  const { edit, select, present } = useEdit();
  const kinds = useKinds();
  return (change) => {
    const made = change(present(), kinds);
    if (made.document === present()) return;
    edit((old) => carried(old, made.document));
    select(made.selected);
  };
}

/** Stages are added after the selected one, moved, doubled, turned into another kind or taken out. */
export function StageActions({ path }: { path: string }) {
  const document = useDocument();
  const { readOnly, select } = useEdit();
  const change = useChange();
  const { make, trouble } = useChoice();
  const kinds = useKinds();
  const [swapping, setSwapping] = useState(false);
  if (readOnly) return null;
  const stage = placeOf(path) ? (at(document, path) as Stage | undefined) : undefined;
  const swapped = stage ? swapMembers(kinds, document, path) : null;
  return (
    <Box mt="3" data-screen-only>
      <Trouble text={trouble} />
      <Flex gap="1" wrap="wrap" align="center">
        <KindChoice
          label="Add a stage after this"
          onChoose={(kind) => change((old, kinds) => addStage(kinds, old, path, kind))}
        />
        {stage && (
          <>
            <KindChoice
              label="Change the kind"
              except={stage.kind}
              onChoose={(kind) =>
                make({ path, kind: kind.kind }, () => select(selectedOf(kinds, path, kind)))
              }
            />
            <Button
              size="xs"
              title="Shift ←"
              onClick={() => change((old, kinds) => moveStage(kinds, old, path, -1))}
            >
              Earlier
            </Button>
            <Button
              size="xs"
              title="Shift →"
              onClick={() => change((old, kinds) => moveStage(kinds, old, path, 1))}
            >
              Later
            </Button>
            <Button
              size="xs"
              title="D"
              onClick={() => change((old, kinds) => duplicateStage(kinds, old, path))}
            >
              Double
            </Button>
            {swapped && (
              <Button size="xs" aria-expanded={swapping} onClick={() => setSwapping(!swapping)}>
                Swap driver and driven
              </Button>
            )}
            <Button
              size="xs"
              title="Del"
              onClick={() => change((old, kinds) => removeStage(kinds, old, path))}
            >
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
  except?: string;
  onChoose: (kind: StageKind) => void;
}) {
  const kinds = useKinds();
  const choose = (name: string) => {
    const kind = kinds.of(name);
    if (kind) onChoose(kind);
  };
  return (
    <select
      className="plain small"
      aria-label={label}
      value=""
      onChange={(event) => choose(event.target.value)}
    >
      <option value="">{label}</option>
      {kinds.list
        .filter(({ kind }) => kind !== except)
        .map(({ kind, title }) => (
          <option key={kind} value={kind}>
            {title}
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
