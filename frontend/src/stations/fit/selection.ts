/** What is chosen on the Line and on the plan is the same thing. Pure. */
import type { Clash, Mounted, PlanShaft } from "../../api/client";
import type { Selected } from "../../document/selected";

/** The shaft of what is chosen on the line: of a wheel the one it sits on. */
export function chosenShaft(fit: Mounted, selected: Selected | null): PlanShaft | null {
  const { shafts, wheels } = fit.plan;
  const wheel = wheels.findIndex((w) => w.path === selected?.path && w.member === selected.member);
  return (
    shafts.find((shaft) => shaft.wheels.includes(wheel)) ??
    shafts.find((shaft) => shaft.path === selected?.path) ??
    shafts[0] ??
    null
  );
}

/** A shaft as the line knows it: by its first wheel, a bare one by what turns it. */
export function selectionOf(fit: Mounted, shaft: PlanShaft): Selected {
  const wheel = fit.plan.wheels[shaft.wheels[0] ?? -1];
  return wheel ? { path: wheel.path, member: wheel.member } : { path: shaft.path, member: "motor" };
}

/** What a clash is about: a wheel of its stage, or a shaft; null for what is nowhere. */
export function selectionAt(fit: Mounted, clash: Clash): Selected | null {
  const wheel = fit.plan.wheels.find((entry) => entry.path === clash.path);
  const shaft = fit.plan.shafts.find((entry) => entry.path === clash.path);
  if (wheel) return { path: wheel.path, member: wheel.member };
  return shaft ? selectionOf(fit, shaft) : null;
}
