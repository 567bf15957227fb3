import { Box } from "@chakra-ui/react";
import type { Stage } from "../../design/document";
import { Field, NumberList, Switch, WholeNumber } from "../Field";

interface Quantity {
  key: string;
  label: string;
  dimension: string;
  optional?: boolean;
}

const EFFICIENCY: Quantity = {
  key: "efficiency",
  label: "Efficiency (empty: assumed)",
  dimension: "ratio",
  optional: true,
};
const PITCH: Quantity = { key: "pitch", label: "Pitch", dimension: "length", optional: true };
const RATIO: Quantity = { key: "ratio", label: "Ratio, driver turns per driven turn", dimension: "ratio" };

/** What of each kind is a quantity, besides its teeth. */
const QUANTITIES: Record<Stage["kind"], Quantity[]> = {
  gear: [{ key: "module", label: "Module", dimension: "length", optional: true }, EFFICIENCY],
  bevel: [EFFICIENCY],
  planetary: [EFFICIENCY],
  gearbox: [RATIO, EFFICIENCY],
  worm: [RATIO, { key: "efficiency", label: "Efficiency", dimension: "ratio" }],
  belt: [PITCH, EFFICIENCY],
  v_belt: [
    { key: "driver_pitch_diameter", label: "Driver, running diameter", dimension: "length" },
    { key: "driven_pitch_diameter", label: "Driven, running diameter", dimension: "length" },
    { key: "creep", label: "Creep (empty: assumed)", dimension: "ratio", optional: true },
    EFFICIENCY,
  ],
  chain: [PITCH, EFFICIENCY],
  speeds: [{ key: "shift_time", label: "Time of a change", dimension: "time", optional: true }, EFFICIENCY],
};

/** Everything of a stage that is typed, but its teeth. */
export function StageFields({ stage, path }: { stage: Stage; path: string }) {
  return (
    <Box display="grid" gap="2" mt="2">
      {stage.kind === "planetary" && (
        <NumberList path={`${path}.reductions`} label="Reductions, from the motor on" />
      )}
      {stage.kind === "speeds" && (
        <NumberList path={`${path}.ratios`} label="Ratios, the lowest gear first" />
      )}
      {QUANTITIES[stage.kind].map(({ key, ...quantity }) => (
        <Field key={key} path={`${path}.${key}`} {...quantity} />
      ))}
      {stage.kind === "belt" && <WholeNumber path={`${path}.belt_teeth`} label="Teeth of the belt" />}
      {stage.kind === "chain" && <WholeNumber path={`${path}.links`} label="Links of the chain" />}
      {stage.kind === "v_belt" && <Switch path={`${path}.crossed`} label="Crossed" />}
      {stage.kind === "gear" && (
        <Switch path={`${path}.internal`} label="Internal: the driven gear is a ring" />
      )}
    </Box>
  );
}
