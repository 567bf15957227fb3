import { Box } from "@chakra-ui/react";
import { type KeyboardEvent, type ReactNode, useRef, useState } from "react";
import type { TypicalValue } from "../api/client";
import { digits, useUnits } from "../ui/fields/units";
import { useEdit } from "./context";
import { useTypical } from "./useTypical";

interface Props {
  path: string;
  label: string;
  children: ReactNode;
}

/** A field with what its value usually is below it, while it has the focus; ↓ and ↑ take one after the other. */
export function TypicalField({ path, label, children }: Props) {
  const { set, readOnly } = useEdit();
  const [open, setOpen] = useState(false);
  const [taken, setTaken] = useState(-1);
  const frame = useRef<HTMLDivElement>(null);
  const values = useTypical(path, open && !readOnly);
  const take = (place: number) => {
    const value = values[place];
    if (!value) return;
    setTaken(place);
    set(path, value.value, `typical ${path}`);
    frame.current?.querySelectorAll("li")[place]?.scrollIntoView({ block: "nearest" });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "Escape") setOpen(false);
    const by = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    if (by === 0 || values.length === 0) return;
    event.preventDefault();
    take(Math.min(Math.max(taken + by, 0), values.length - 1));
  };
  return (
    <Box
      ref={frame}
      position="relative"
      onFocus={() => setOpen(true)}
      onBlur={(event) => {
        if (frame.current?.contains(event.relatedTarget)) return;
        setOpen(false);
        setTaken(-1);
      }}
      onKeyDown={onKeyDown}
    >
      {children}
      {open && values.length > 0 && <Choice values={values} label={label} taken={taken} onTake={take} />}
    </Box>
  );
}

interface ChoiceProps {
  values: TypicalValue[];
  label: string;
  taken: number;
  onTake: (place: number) => void;
}

function Choice({ values, label, taken, onTake }: ChoiceProps) {
  const range = useRange();
  return (
    <Box
      position="absolute"
      zIndex="5"
      top="100%"
      left="0"
      w="max(100%, 420px)"
      maxW="92vw"
      bg="panel"
      borderWidth="1px"
      borderColor="spruce"
      borderRadius="3px"
      fontSize="sm"
      data-typical
    >
      <Box px="2" py="1" color="ink.second" fontSize="xs" borderBottomWidth="1px" borderColor="line">
        Typical, marked as assumed. ↓ takes the next.
      </Box>
      <Box
        as="ul"
        listStyleType="none"
        p="0"
        m="0"
        maxH="190px"
        overflowY="auto"
        aria-label={`Typical: ${label}`}
      >
        {values.map((value, place) => (
          <li key={value.of}>
            <button
              type="button"
              className="typical"
              tabIndex={-1}
              aria-pressed={place === taken}
              title={value.source}
              // The field keeps the focus, so that the keys go on from here.
              onPointerDown={(event) => event.preventDefault()}
              onClick={() => onTake(place)}
            >
              <span>{value.of}</span>
              <Box as="span" fontFamily="mono" whiteSpace="nowrap">
                {range(value)}
              </Box>
            </button>
          </li>
        ))}
      </Box>
    </Box>
  );
}

/** "0.010 to 0.015", in the units on display. */
function useRange(): (value: TypicalValue) => string {
  const units = useUnits();
  return ({ dimension, low, high }) => {
    const { factor, symbol } = units.entry(dimension)[units.system];
    return `${digits(low / factor)} to ${digits(high / factor)} ${symbol}`.trim();
  };
}
