/** The text of a field that is typed in before it is taken over. */
import { useEffect, useRef, useState } from "react";

interface Typed {
  text: string;
  type: (text: string) => void;
  /** Say that what stands there now has been taken over. */
  taken: () => void;
}

/** A value that comes, be it one's own that comes back late, never overwrites what was typed on meanwhile. */
export function useTyped(value: string): Typed {
  const [text, type] = useState(value);
  /** What stood there when field and value were last the same, or were made so. */
  const agreed = useRef(value);
  useEffect(() => {
    const before = agreed.current;
    agreed.current = value;
    type((now) => (now === before ? value : now));
  }, [value]);
  return {
    text,
    type,
    taken: () => {
      agreed.current = text;
    },
  };
}
