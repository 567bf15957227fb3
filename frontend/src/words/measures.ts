/** What measures are called on the screen, and how a target for them is said. */
import type { Standing } from "../api/client";

export const STANDING: Record<Standing, string> = {
  holds: "holds",
  tight: "holds, but only just",
  misses: "misses",
  unknown: "no target",
};

interface Words {
  label: string;
  /** The sentence before and after the bound; {run} is the target's own distance, speed or time. */
  before: string;
  after?: string;
  bound: "at_least" | "at_most";
  /** What is offered first, where that is not the present value. */
  usual?: string;
}

export const MEASURES: Record<string, Words> = {
  top_speed: { label: "Top speed", before: "Reach", bound: "at_least" },
  time_to_distance: { label: "{run} from rest", before: "Cover {run} from rest in", bound: "at_most" },
  pushing_force: { label: "Push at a wall", before: "Push", after: "at a wall", bound: "at_least" },
  max_grade: { label: "Slope to start on", before: "Start on a slope of", bound: "at_least" },
  peak_bus_current: {
    label: "Supply, peak in the run",
    before: "Draw",
    after: "from the supply in the run",
    bound: "at_most",
  },
  launch_bus_current: {
    label: "Supply, wheels held",
    before: "Draw",
    after: "from the supply with the wheels held",
    bound: "at_most",
  },
  pushing_bus_current: {
    label: "Supply while pushing",
    before: "Draw",
    after: "from the supply while pushing",
    bound: "at_most",
  },
  cruise_bus_current: {
    label: "Supply at top speed",
    before: "Draw",
    after: "from the supply at top speed",
    bound: "at_most",
  },
  launch_acceleration: { label: "Launch acceleration", before: "Pull away with", bound: "at_least" },
  time_to_speed: { label: "Rest to {run}", before: "Reach {run} from rest in", bound: "at_most" },
  distance_in_time: { label: "Covered in {run}", before: "In {run} from rest cover", bound: "at_least" },
  speed_at_distance: { label: "Speed after {run}", before: "After {run} from rest have", bound: "at_least" },
  sprint_and_stop: {
    label: "{run} and stop",
    before: "Cover {run} from rest and stop again in",
    bound: "at_most",
  },
  stopping_distance: { label: "Stopping distance", before: "Stop from top speed within", bound: "at_most" },
  stall_wheel_torque: {
    label: "Torque at the wheels",
    before: "Turn the held wheels with",
    bound: "at_least",
  },
  no_load_speed: {
    label: "Speed, wheels in the air",
    before: "With wheels in the air reach",
    bound: "at_least",
  },
  no_load_wheel_rpm: {
    label: "Wheel, in the air",
    before: "In the air turn the wheels at",
    bound: "at_least",
  },
  energy_per_run: { label: "Energy for {run}", before: "Spend over {run}", bound: "at_most" },
  endurance_at_top: { label: "Time at top speed", before: "Hold top speed for", bound: "at_least" },
  price: { label: "Cost", before: "Cost", after: "", bound: "at_most" },
  worst_use: {
    label: "Worst use of a part",
    before: "Load each part to",
    after: "of what it stands",
    bound: "at_most",
    usual: "90 %",
  },
  winding_temperature: {
    label: "Hottest winding of the day",
    before: "Let the winding get to",
    after: "over the day",
    bound: "at_most",
    usual: "110 degC",
  },
  range_at_top: { label: "Range at top speed", before: "At top speed go", bound: "at_least" },
};

export const BOUNDS = { at_least: "at least", at_most: "at most", between: "between" } as const;

/** What measures are called that no target can name. */
const OTHERS: Record<string, string> = {
  overall_ratio: "Overall ratio",
  limited_by: "What limits the top speed",
  pushing_limit: "What limits the push",
  launch_motor_current: "One motor, hard start",
  pushing_motor_current: "One motor, pushing",
  cruise_motor_current: "One motor, top speed",
  motor_speed_at_top: "Source, at top speed",
};

export function label(measure: string, run = ""): string {
  return (MEASURES[measure]?.label ?? OTHERS[measure] ?? measure).replace("{run}", run).trim();
}

export const MOMENTS: Record<string, string> = {
  "hard start": "Hard start",
  shove: "Shove",
  "top speed": "Top speed",
};

/** How a shaft is mounted. */
export const MOUNT_WORDS: Record<string, string> = {
  fixed: "fixed",
  holes: "on a hole",
  slot: "in a slot",
  free: "free",
};
