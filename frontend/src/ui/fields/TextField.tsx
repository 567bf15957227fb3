import { Box, Input } from "@chakra-ui/react";
import { useEffect, useId, useState } from "react";
import type { Fault } from "../../api/client";
import { FaultText } from "./FaultText";
import { FieldLabel } from "./FieldLabel";
import { useTakenOnLeaving } from "./leaving";

interface Props {
  label: string;
  value: string;
  readOnly?: boolean;
  lines?: number;
  placeholder?: string;
  fault?: Fault;
  onChange: (text: string) => void;
}

/** A plain text, taken over when the field is left. */
export function TextField({ label, value, readOnly, lines = 1, placeholder, fault, onChange }: Props) {
  const [text, setText] = useState(value);
  const id = useId();
  useEffect(() => setText(value), [value]);
  const commit = () => {
    if (text !== value) onChange(text);
  };
  useTakenOnLeaving(commit);
  const given = {
    id,
    value: text,
    readOnly,
    placeholder,
    "aria-invalid": fault ? true : undefined,
    "aria-describedby": fault ? `${id}-fault` : undefined,
    onBlur: commit,
  };
  return (
    <Box data-field={label}>
      <FieldLabel id={id}>{label}</FieldLabel>
      {lines > 1 ? (
        <textarea
          className="plain"
          rows={lines}
          {...given}
          onChange={(event) => setText(event.target.value)}
        />
      ) : (
        <Input fontFamily="body" {...given} onChange={(event) => setText(event.target.value)} />
      )}
      {fault && <FaultText id={`${id}-fault`} fault={fault} />}
    </Box>
  );
}
