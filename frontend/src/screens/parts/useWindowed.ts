/** Of a long table only the rows in sight are in the page, with some above and below for the keys to walk to. */
import { useVirtualizer } from "@tanstack/react-virtual";
import type { RefObject } from "react";
import type { PartDocument } from "../../document/bin/bin";

/** A table this short is painted whole. */
const SHORT = 120;
const ROW_PX = 29;
const OVERSCAN = 8;

export function useWindowed(
  shown: PartDocument[],
  frame: RefObject<HTMLDivElement | null>,
  faults: ReadonlyMap<string, unknown>,
) {
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => frame.current,
    estimateSize: (i) => (faults.has(shown[i]?.id ?? "") ? 2 * ROW_PX : ROW_PX),
    overscan: OVERSCAN,
    enabled: shown.length > SHORT,
  });
  if (shown.length <= SHORT) return { inWindow: shown, above: 0, below: 0 };
  const rows = virtual.getVirtualItems();
  const first = rows[0];
  const last = rows.at(-1);
  if (!first || !last) return { inWindow: shown.slice(0, OVERSCAN), above: 0, below: 0 };
  return {
    inWindow: shown.slice(first.index, last.index + 1),
    above: first.start,
    below: virtual.getTotalSize() - last.end,
  };
}
