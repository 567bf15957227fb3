import { Box, Input } from "@chakra-ui/react";
import { useId } from "react";
import type { Fault } from "../../api/client";
import { FieldLabel } from "./FieldLabel";
import { useTakenOnLeaving } from "./leaving";
import { useTyped } from "./useTyped";

interface Props {
  label: string;
  value: number | undefined;
  fault?: Fault;
  optional?: boolean;
  readOnly?: boolean;
  onChange: (value: number | string | undefined) => void;
}

/** A whole number as typed; anything else is handed on as it is, for the core to refuse with a remedy. */
export function WholeField({ label, value, fault, optional, readOnly, onChange }: Props) {
  const stored = value === undefined ? "" : String(value);
  const { text, type, taken } = useTyped(stored);
  const id = useId();
  const commit = () => {
    taken();
    const plain = text.trim();
    if (plain === stored) return;
    if (plain === "" && optional) onChange(undefined);
    else onChange(/^-?\d+(\.\d+)?$/.test(plain) ? Number(plain) : plain);
  };
  useTakenOnLeaving(commit);
  return (
    <Box data-field={label}>
      <FieldLabel id={id}>{label}</FieldLabel>
      <Input
        id={id}
        inputMode="numeric"
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        value={text}
        readOnly={readOnly}
        placeholder={optional ? "not given" : undefined}
        onChange={(event) => type(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => event.key === "Enter" && commit()}
      />
      {fault && (
        <Box id={`${id}-fault`} role="alert" fontSize="xs" color="brick">
          {fault.problem}: {fault.remedy}
        </Box>
      )}
    </Box>
  );
}
