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

/** The time on the clock here, as the server takes it: "2027-05-03T18:00:00". */
export function clockNow(): string {
  const here = new Date();
  return new Date(here.getTime() - here.getTimezoneOffset() * 60_000).toISOString().slice(0, 19);
}

/** Weekday, day and month, of a time or of a date alone: "2027-05-03". */
export function weekday(at: string): string {
  // A date alone would be taken for the midnight of Greenwich, which west of it belongs to the day before.
  const here = at.length === "2027-05-03".length ? `${at}T00:00` : at;
  return new Date(here).toLocaleDateString([], { weekday: "short", ...DAY });
}
