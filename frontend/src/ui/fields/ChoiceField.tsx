import { Box } from "@chakra-ui/react";
import { useId } from "react";
import { FieldLabel } from "./FieldLabel";

interface Props {
  label: string;
  value: string;
  options: [string, string][];
  readOnly: boolean;
  onChange: (value: string) => void;
}

/** One of a few: the value that is kept, and the words for it. */
export function ChoiceField({ label, value, options, readOnly, onChange }: Props) {
  const id = useId();
  return (
    <Box data-field={label}>
      <FieldLabel id={id}>{label}</FieldLabel>
      <select
        id={id}
        className="plain"
        value={value}
        disabled={readOnly}
        onChange={(event) => onChange(event.target.value)}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </Box>
  );
}
