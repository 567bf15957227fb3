/** A number of things: "1 run", "3 runs", "2,400 rows". */
export function counted(count: number, one: string): string {
  return `${count.toLocaleString("en")} ${one}${count === 1 ? "" : "s"}`;
}
