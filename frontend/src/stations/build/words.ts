/** Minutes in words: "20 min", "1 h 30". */
export function minutes(count: number): string {
  const whole = Math.max(1, Math.round(count));
  if (whole < 90) return `${whole} min`;
  const rest = whole % 60;
  return rest ? `${Math.floor(whole / 60)} h ${rest}` : `${whole / 60} h`;
}
