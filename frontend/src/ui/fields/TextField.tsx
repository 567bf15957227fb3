import { Box, Input } from "@chakra-ui/react";
import { useId } from "react";
import type { Fault } from "../../api/client";
import { FaultText } from "./FaultText";
import { FieldLabel } from "./FieldLabel";
import { useTakenOnLeaving } from "./leaving";
import { useTyped } from "./useTyped";

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
  const { text, type, taken } = useTyped(value);
  const id = useId();
  const commit = () => {
    taken();
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
        <textarea className="plain" rows={lines} {...given} onChange={(event) => type(event.target.value)} />
      ) : (
        <Input fontFamily="body" {...given} onChange={(event) => type(event.target.value)} />
      )}
      {fault && <FaultText id={`${id}-fault`} fault={fault} />}
    </Box>
  );
}
