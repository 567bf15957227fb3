import type { Fault } from "../../api/client";

/** Whether a fault is about the value at a path, or something within it. */
export function isWithin(fault: Fault, path: string): boolean {
  return fault.path === path || fault.path.startsWith(`${path}.`) || fault.path.startsWith(`${path}[`);
}
