/** Times as the page tells them, of dates that the server or the clock here gives. */

const CLOCK = { hour: "2-digit", minute: "2-digit", hourCycle: "h23" } as const;
const DAY = { day: "numeric", month: "short" } as const;

/** Hours and minutes. */
export function hour(at: string | number): string {
  return new Date(at).toLocaleTimeString([], CLOCK);
}

/** Day, month, hours and minutes. */
export function moment(at: string | number): string {
  return new Date(at).toLocaleString([], { ...DAY, ...CLOCK });
}

/** Day, month and year. */
export function day(at: string | number): string {
  return new Date(at).toLocaleDateString([], { ...DAY, year: "numeric" });
}
