/**
 * The loop around two circles while one of them is being dragged, in pixels. The core's drawing replaces it as soon as it
 * answers; nothing here reaches a figure. Pure.
 */

export interface Circle {
  x: number;
  y: number;
  r: number;
}

/** An open belt or chain as a closed path; empty where one circle swallows the other. */
export function openLoop(one: Circle, other: Circle): string {
  const distance = Math.hypot(other.x - one.x, other.y - one.y);
  if (distance <= Math.abs(other.r - one.r)) return "";
  const towards = Math.atan2(other.y - one.y, other.x - one.x);
  const lean = Math.asin((other.r - one.r) / distance);
  const up = towards - Math.PI / 2 - lean;
  const down = towards + Math.PI / 2 + lean;
  const on = (c: Circle, angle: number) =>
    `${(c.x + c.r * Math.cos(angle)).toFixed(1)} ${(c.y + c.r * Math.sin(angle)).toFixed(1)}`;
  const arc = (c: Circle, large: boolean, to: number) =>
    `A ${c.r.toFixed(1)} ${c.r.toFixed(1)} 0 ${large ? 1 : 0} 1 ${on(c, to)}`;
  return `M ${on(one, up)} L ${on(other, up)} ${arc(other, lean > 0, down)} L ${on(one, down)} ${arc(one, lean < 0, up)} Z`;
}
