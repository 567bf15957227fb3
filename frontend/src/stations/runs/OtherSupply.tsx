import { Box } from "@chakra-ui/react";
import type { Fault } from "../../api/client";
import { ChoiceField } from "../../ui/fields/ChoiceField";
import { isWithin } from "../../ui/fields/faults";
import { QuantityField } from "../../ui/fields/QuantityField";

type Supply = Record<string, unknown> & { kind: string };

interface Props {
  value: unknown;
  faults: Fault[];
  onChange: (supply: Supply | undefined) => void;
}

const FIELDS: Record<string, [key: string, label: string, dimension: string][]> = {
  battery: [
    ["open_circuit_voltage", "Its voltage", "voltage"],
    ["resistance", "Its resistance", "resistance"],
  ],
  bench: [["voltage", "Its voltage", "voltage"]],
};

/** A run on another supply than the design's: indoors on a battery, say, where the design has a panel. */
export function OtherSupply({ value, faults, onChange }: Props) {
  const supply = (value ?? null) as Supply | null;
  return (
    <>
      <ChoiceField
        label="Supply"
        value={supply?.kind ?? ""}
        options={[
          ["", "as designed"],
          ["battery", "on a battery"],
          ["bench", "on a bench supply"],
        ]}
        readOnly={false}
        onChange={(kind) => onChange(kind ? { kind } : undefined)}
      />
      {supply &&
        FIELDS[supply.kind]?.map(([key, label, dimension]) => (
          <Box key={key}>
            <QuantityField
              label={label}
              dimension={dimension}
              value={supply[key]}
              fault={faults.find((fault) => isWithin(fault, `supply.${key}`))}
              onChange={(text) => onChange({ ...supply, [key]: text })}
            />
          </Box>
        ))}
    </>
  );
}
