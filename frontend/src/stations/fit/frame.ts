/** How the panels of Fit are set off from the page. */
export const FRAME = {
  bg: "panel",
  borderWidth: "1px",
  borderColor: "line",
  borderRadius: "3px",
  p: "3",
} as const;
