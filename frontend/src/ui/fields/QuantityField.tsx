import { Box, Input } from "@chakra-ui/react";
import { type KeyboardEvent, useId } from "react";
import type { Fault } from "../../api/client";
import { FaultText } from "./FaultText";
import { FieldLabel } from "./FieldLabel";
import { useTakenOnLeaving } from "./leaving";
import { note, typedText } from "./typed";
import { completed, show, useUnits } from "./units";
import { useTyped } from "./useTyped";

interface Props {
  label: string;
  /** Where its value stands in the document, if it does. */
  path?: string;
  dimension: string;
  value: unknown;
  /** SI value as the core read it, for a second look in the units on display. */
  si?: number;
  fault?: Fault;
  optional?: boolean;
  /** What stands in its place while it is empty. */
  empty?: string;
  inline?: boolean;
  readOnly?: boolean;
  onChange: (text: string | undefined) => void;
}

/** A quantity as typed, in any unit; what cannot be read stays there, with what would be right. */
export function QuantityField({
  label,
  path,
  dimension,
  value,
  si,
  fault,
  optional,
  empty,
  inline,
  readOnly,
  onChange,
}: Props) {
  const units = useUnits();
  const entry = units.entry(dimension);
  const stored = typedText(value, entry.metric.factor === 1 ? entry.metric.typed : "");
  const { text, type, taken } = useTyped(stored);
  const id = useId();

  const commit = () => {
    taken();
    if (text.trim() === stored.trim()) return;
    if (text.trim() === "" && optional) onChange(undefined);
    else onChange(completed(units, dimension, text));
  };
  useTakenOnLeaving(commit);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "Enter") commit();
    if (event.key === "Escape") type(stored);
  };
  // Beside what cannot be read stands no value that it does not have.
  const second = si === undefined || fault ? "" : otherwise(stored, show(units, dimension, si));
  const described =
    [fault && `${id}-fault`, note(value) && `${id}-note`].filter(Boolean).join(" ") || undefined;

  return (
    <Box
      display={inline ? "inline-block" : "block"}
      minW="0"
      verticalAlign="top"
      data-field={label}
      data-path={path}
    >
      {!inline && <FieldLabel id={id}>{label}</FieldLabel>}
      {/* What is typed is never cut: what stands beside it goes to the next line instead. */}
      <Box display="flex" flexWrap="wrap" alignItems="baseline" columnGap="2">
        <Input
          id={id}
          aria-label={inline ? label : undefined}
          aria-invalid={fault ? true : undefined}
          aria-describedby={described}
          value={text}
          readOnly={readOnly}
          placeholder={empty ?? (optional ? "not given" : entry.example)}
          onChange={(event) => type(event.target.value)}
          onBlur={commit}
          onKeyDown={onKeyDown}
          width={inline ? `${Math.max(text.length, 4) + 2.6}ch` : "auto"}
          flex={inline ? undefined : "1 1 0"}
          minWidth={inline ? "0" : `min(100%, ${Math.max(text.length, 4) + 2.6}ch)`}
        />
        {second && !inline && (
          <Box as="span" fontFamily="mono" fontSize="xs" color="ink.second" whiteSpace="nowrap">
            = {second}
          </Box>
        )}
      </Box>
      {note(value) && !inline && (
        <Box id={`${id}-note`} fontSize="xs" color="ink.second">
          {note(value)}
        </Box>
      )}
      {fault && <FaultText id={`${id}-fault`} fault={fault} />}
    </Box>
  );
}

/** The value in the units on display, unless it was typed in them: what was typed is then the better look. */
function otherwise(stored: string, shown: { number: string; unit: string }): string {
  if (shown.number === "–" || shown.unit === "") return "";
  const unit = canonical(stored).replace(/^[-+−]?[\d.,]+/, "");
  return unit === canonical(shown.unit) ? "" : `${shown.number} ${shown.unit}`;
}

/** Both spellings of one quantity, without spaces and closing zeros. */
function canonical(text: string): string {
  const spelled = text
    .replace(/[\s\u202f]/g, "")
    .replace("^2", "²")
    .replaceAll("*", "·")
    .replace("ohm", "Ω");
  return spelled.replace(/(\.\d*?)0+(?=\D|$)/, "$1").replace(/\.(?=\D|$)/, "");
}
