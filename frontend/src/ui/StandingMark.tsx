import type { Standing } from "../api/client";
import { STANDING } from "../words/measures";

/** How something stands, told by shape first: filled disc, half disc, open triangle, dashed ring. */
export function StandingMark({ standing, size = 13 }: { standing: Standing; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 14 14"
      role="img"
      aria-label={STANDING[standing]}
      style={{ flex: "none", display: "inline-block" }}
    >
      {SHAPES[standing]}
    </svg>
  );
}

const SHAPES: Record<Standing, React.ReactNode> = {
  holds: <circle cx="7" cy="7" r="5.5" fill="var(--chakra-colors-spruce)" />,
  tight: (
    <g stroke="var(--chakra-colors-ochre)" strokeWidth="1.4">
      <circle cx="7" cy="7" r="5.3" fill="none" />
      <path d="M7 1.7 A5.3 5.3 0 0 1 7 12.3 Z" fill="var(--chakra-colors-ochre)" />
    </g>
  ),
  misses: (
    <path d="M7 1.8 L12.6 12 H1.4 Z" fill="none" stroke="var(--chakra-colors-brick)" strokeWidth="1.6" />
  ),
  unknown: (
    <circle
      cx="7"
      cy="7"
      r="5.3"
      fill="none"
      stroke="var(--chakra-colors-ink-second)"
      strokeWidth="1.3"
      strokeDasharray="2.2 1.8"
    />
  ),
};
