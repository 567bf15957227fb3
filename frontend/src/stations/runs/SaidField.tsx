import type { Fault, RunKind } from "../../api/client";
import { ChoiceField } from "../../ui/fields/ChoiceField";
import { QuantityField } from "../../ui/fields/QuantityField";
import { TextField } from "../../ui/fields/TextField";
import { WholeField } from "../../ui/fields/WholeField";

interface Props {
  field: RunKind["fields"][number];
  value: unknown;
  fault?: Fault;
  readOnly?: boolean;
  onChange: (value: unknown) => void;
}

/** Something said of a run, typed the way the core says. */
export function SaidField({ field, value, fault, readOnly = false, onChange }: Props) {
  const { label, dimension, optional } = field;
  switch (field.control) {
    case "choice":
      return (
        <ChoiceField
          label={label}
          value={String(value ?? field.choices[0] ?? "")}
          options={field.choices.map((choice): [string, string] => [choice, choice])}
          readOnly={readOnly}
          onChange={onChange}
        />
      );
    case "whole":
      return (
        <WholeField
          label={label}
          value={value as number | undefined}
          {...{ fault, optional, readOnly, onChange }}
        />
      );
    case "text":
      return (
        <TextField
          label={label}
          value={String(value ?? "")}
          {...{ fault, readOnly }}
          onChange={(text) => onChange(text || undefined)}
        />
      );
    default:
      return <QuantityField {...{ label, dimension, value, fault, optional, readOnly, onChange }} />;
  }
}
