/** What is chosen on the Line and on the plan is the same thing. Pure. */
import type { Clash, Mounted, OnPlate, PlanShaft } from "../../api/client";
import type { Selected } from "../../document/selected";

/** The plate on which what is chosen stands: of a driver that of the shaft before its stage. */
export function chosenPlate(fit: Mounted, selected: Selected | null): OnPlate {
  const [first, ...others] = fit.plates as [OnPlate, ...OnPlate[]];
  const on = ({ plan: { shafts, wheels } }: OnPlate) =>
    wheels.some((wheel) => wheel.path === selected?.path) ||
    (selected?.member !== "driver" && shafts.some((shaft) => shaft.path === selected?.path));
  return others.find(on) ?? first;
}

/** The shaft of what is chosen on the line: of a wheel the one it sits on. */
export function chosenShaft(fit: OnPlate, selected: Selected | null): PlanShaft | null {
  const { shafts, wheels } = fit.plan;
  const wheel = wheels.findIndex((w) => w.path === selected?.path && w.member === selected.member);
  return (
    shafts.find((shaft) => shaft.wheels.includes(wheel)) ??
    shafts.find((shaft) => shaft.path === selected?.path) ??
    shafts[0] ??
    null
  );
}

/** A shaft as the line knows it: by its first wheel, a bare one by what turns it, a motor or the end of a stage. */
export function selectionOf(fit: OnPlate, shaft: PlanShaft): Selected {
  const wheel = fit.plan.wheels[shaft.wheels[0] ?? -1];
  if (wheel) return { path: wheel.path, member: wheel.member };
  return { path: shaft.path, member: /\.source/.test(shaft.path) ? "motor" : "driven" };
}

/** What a clash is about: a wheel of its stage, or a shaft; null for what is nowhere. */
export function selectionAt(fit: OnPlate, clash: Clash): Selected | null {
  const wheel = fit.plan.wheels.find((entry) => entry.path === clash.path);
  const shaft = fit.plan.shafts.find((entry) => entry.path === clash.path);
  if (wheel) return { path: wheel.path, member: wheel.member };
  return shaft ? selectionOf(fit, shaft) : null;
}
