import { Box } from "@chakra-ui/react";
import { memo } from "react";
import type { OnPlate, StageSettings } from "../../api/client";
import { useDocument, useEdit } from "../../document/context";
import { Field } from "../../document/Field";
import { mountingOf, withLoop } from "../../document/mounting";
import type { Selected } from "../../document/selected";
import { show, type Units, useUnits } from "../../ui/fields/units";
import { lengthText } from "./lengths";

interface Props {
  fit: OnPlate;
  selected: Selected | null;
}

/** For each stage what the hands set it by; the chosen one first. */
export const Numbers = memo(function Numbers({ fit, selected }: Props) {
  const sorted = [...fit.settings].sort(
    (a, b) => Number(b.path === selected?.path) - Number(a.path === selected?.path),
  );
  const caution = sorted[0]?.caution;
  if (!caution) return <Box>There is no pair of wheels on this plate yet: add a stage on the Line.</Box>;
  return (
    <Box data-numbers>
      <Box fontSize="13px" bg="copper.wash" px="2" py="1" mb="2" borderLeftWidth="3px" borderColor="copper">
        {caution}
      </Box>
      <Box display="grid" gap="4" gridTemplateColumns="repeat(auto-fill, minmax(290px, 1fr))">
        {sorted.map((stage, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a pair is its place in the line
          <StageNumbers key={`${stage.path} ${i}`} stage={stage} chosen={stage.path === selected?.path} />
        ))}
      </Box>
    </Box>
  );
});

function StageNumbers({ stage, chosen }: { stage: StageSettings; chosen: boolean }) {
  const units = useUnits();
  return (
    <Box borderTopWidth={chosen ? "3px" : "1px"} borderColor={chosen ? "spruce" : "line"} pt="1">
      <Box as="h2" fontWeight="600" mb="1">
        {stage.title}
      </Box>
      <Box as="table" w="100%" fontSize="13.5px">
        <tbody>
          {stage.settings.map((setting) => {
            const text = settingText(units, setting);
            return (
              <tr key={setting.name} data-setting={setting.name}>
                <Box as="td" color="ink.second" pr="2">
                  {setting.words}
                </Box>
                <Box as="td" fontFamily="mono" textAlign="right" whiteSpace="nowrap">
                  {text}
                </Box>
              </tr>
            );
          })}
        </tbody>
      </Box>
      <Box fontSize="13px" color="ink.second" mt="1">
        Rough check: {stage.check}
      </Box>
      {stage.choices.length > 0 && (
        <Box mt="2" data-choices>
          <Box fontSize="13px" color="ink.second">
            {stage.choices_title}
          </Box>
          <Box as="table" w="100%" fontSize="13.5px" fontFamily="mono">
            <tbody>
              {stage.choices.map((choice) => (
                <tr key={choice.words}>
                  <td>{choice.words}</td>
                  <Box as="td" textAlign="right">
                    {lengthText(units, choice.distance)}
                  </Box>
                  <Box as="td" textAlign="right" color={choice.missing ? "brick" : "ink.second"}>
                    {choice.missing ? `${lengthText(units, choice.missing)} ${stage.lacking}` : "goes"}
                  </Box>
                </tr>
              ))}
            </tbody>
          </Box>
        </Box>
      )}
      {stage.is_loop && <LoopFields stage={stage} />}
    </Box>
  );
}

function settingText(units: Units, { dimension, value }: StageSettings["settings"][number]): string {
  if (dimension === "length") return lengthText(units, value);
  if (!dimension) return String(Math.round(value * 100) / 100);
  const shown = show(units, dimension, value);
  return `${shown.number} ${shown.unit}`;
}

/** Tension and length of a loop: said once, all numbers follow. */
function LoopFields({ stage }: { stage: StageSettings }) {
  const document = useDocument();
  const { edit, readOnly } = useEdit();
  const place = (mountingOf(document).loops ?? []).findIndex((loop) => loop.stage === stage.path);
  if (place < 0)
    return readOnly ? null : (
      <button type="button" className="link" onClick={() => edit((old) => withLoop(old, stage.path, {}))}>
        Say its tension{stage.asks_length ? " or length" : ""}, or add a tensioner
      </button>
    );
  const path = `fit.loops[${place}]`;
  const tensioned = Boolean(mountingOf(document).loops?.[place]?.tensioner);
  return (
    <Box mt="2" display="grid" gap="1" gridTemplateColumns="repeat(2, minmax(0, 1fr))">
      {stage.asks_length && <Field path={`${path}.length`} label="belt length" dimension="length" optional />}
      <Field path={`${path}.tension`} label="tension at rest" dimension="force" optional />
      <Field path={`${path}.mass_per_length`} label="mass per length" dimension="linear density" optional />
      {tensioned ? (
        <>
          <Field path={`${path}.tensioner.diameter`} label="tensioner across" dimension="length" />
          <Field path={`${path}.tensioner.at[0]`} label="tensioner x" dimension="length" />
          <Field path={`${path}.tensioner.at[1]`} label="tensioner y" dimension="length" />
        </>
      ) : (
        !readOnly && (
          <button
            type="button"
            className="link"
            onClick={() =>
              edit((old) =>
                withLoop(old, stage.path, {
                  tensioner: { at: ["0 mm", "0 mm"], diameter: "20 mm", outside: true },
                }),
              )
            }
          >
            Add a tensioner
          </button>
        )
      )}
    </Box>
  );
}
