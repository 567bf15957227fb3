import { Box } from "@chakra-ui/react";
import { useId } from "react";

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
      <Box as="label" {...{ htmlFor: id }} display="block" fontSize="sm" color="ink.second" lineHeight="1.3">
        {label}
      </Box>
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
