import { type KeyboardEvent, useEffect, useState } from "react";
import type { Column } from "../../document/bin/cells";

interface Props {
  column: Column;
  text: string;
  label: string;
  hint?: string;
  faulty: boolean;
  readOnly: boolean;
  onCommit: (text: string) => void;
}

/** One cell: typed over at once, taken over when it is left, as it was with Escape. */
export function Cell({ column, text, label, hint, faulty, readOnly, onCommit }: Props) {
  const [typed, setTyped] = useState(text);
  useEffect(() => setTyped(text), [text]);
  if (column.type === "choice") {
    return (
      <select
        aria-label={label}
        value={typed || column.choices[0]}
        disabled={readOnly}
        onChange={(event) => onCommit(event.target.value === column.choices[0] ? "" : event.target.value)}
      >
        {column.choices.map((choice) => (
          <option key={choice}>{choice}</option>
        ))}
      </select>
    );
  }
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === "Escape") setTyped(text);
  };
  return (
    <input
      aria-label={label}
      aria-invalid={faulty ? true : undefined}
      placeholder={hint}
      value={typed}
      readOnly={readOnly}
      style={{ width: `${Math.max(column.wide, Math.min(typed.length, 40)) + 2}ch` }}
      data-type={column.type}
      data-none={text === "0" ? true : undefined}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => typed.trim() !== text && onCommit(typed)}
      onKeyDown={onKeyDown}
    />
  );
}
