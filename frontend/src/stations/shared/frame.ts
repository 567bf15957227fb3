/** A panel of a station. */
export const FRAME = {
  bg: "panel",
  borderWidth: "1px",
  borderColor: "line",
  borderRadius: "3px",
  p: "3",
} as const;
