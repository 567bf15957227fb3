import { Box } from "@chakra-ui/react";
import type { ReactNode } from "react";
import type { Fault } from "../../api/client";
import { QuantityField } from "../../ui/fields/QuantityField";
import { show, useUnits } from "../../ui/fields/units";

/** A question in plain words, with what can be answered under it. */
export function Question({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box as="li" borderTopWidth="1px" borderColor="line" py="2">
      <Box as="h2" fontWeight="600" mb="1">
        {title}
      </Box>
      {children}
    </Box>
  );
}

interface AskedProps {
  label: string;
  dimension: string;
  /** What stands if nothing is typed, SI. */
  typical?: number;
  value: string | undefined;
  fault?: Fault;
  onChange: (text: string | undefined) => void;
}

/** A quantity with what is typical in its place until something is typed. */
export function Asked({ label, dimension, typical, value, fault, onChange }: AskedProps) {
  const units = useUnits();
  const usual = typical === undefined ? "" : Object.values(show(units, dimension, typical)).join(" ");
  return (
    <Box w="190px">
      <QuantityField
        label={label}
        dimension={dimension}
        value={value ?? ""}
        fault={fault}
        optional
        empty={usual && `${usual}, typical`}
        onChange={onChange}
      />
    </Box>
  );
}
