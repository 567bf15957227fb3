"""The measures of a design: name, unit in results, kind of quantity, and whether it is one number.

`dimension` says how a target for it is written and how it is shown. Shapes: "number" (a target may
name it), "branches" (one a branch), "ratios" (one a branch and gear), "text".
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Measure:
    """One row: what a result calls it, in which unit, and of which kind it is."""

    name: str
    unit: str
    dimension: str
    shape: str = "number"
    run: str = ""
    """The key of `run` it depends on, if any: distance, speed or time."""


_ROWS = (
    Measure("overall_ratio", "", "ratio", "ratios"),
    Measure("no_load_speed", "m/s", "speed"),
    Measure("no_load_wheel_rpm", "rpm", "angular speed"),
    Measure("top_speed", "m/s", "speed"),
    Measure("limited_by", "", "ratio", "text"),
    Measure("launch_acceleration", "m/s²", "acceleration"),
    Measure("time_to_distance", "s", "time", run="distance"),
    Measure("speed_at_distance", "m/s", "speed", run="distance"),
    Measure("time_to_speed", "s", "time", run="speed"),
    Measure("distance_in_time", "m", "distance", run="time"),
    Measure("sprint_and_stop", "s", "time", run="distance"),
    Measure("stopping_distance", "m", "distance"),
    Measure("stall_wheel_torque", "N·m", "torque"),
    Measure("pushing_force", "N", "force"),
    Measure("pushing_limit", "", "ratio", "text"),
    Measure("pushing_motor_current", "A", "current", "branches"),
    Measure("pushing_bus_current", "A", "current"),
    Measure("launch_motor_current", "A", "current", "branches"),
    Measure("launch_bus_current", "A", "current"),
    Measure("peak_bus_current", "A", "current"),
    Measure("cruise_motor_current", "A", "current", "branches"),
    Measure("max_grade", "", "grade"),
    Measure("energy_per_run", "J", "energy", run="distance"),
    Measure("motor_speed_at_top", "rpm", "angular speed", "branches"),
    Measure("cruise_bus_current", "A", "current"),
    Measure("endurance_at_top", "s", "time"),
    Measure("range_at_top", "m", "distance"),
    Measure("price", "", "price"),
)

MEASURES = {row.name: row for row in _ROWS}
OF_LOADS = {
    row.name: row for row in (Measure("worst_use", "", "use"), Measure("winding_temperature", "K", "temperature"))
}
"""What Loads says of a design: a target may name it, but no evaluation alone can tell it."""
NUMBERS = {row.name: row for row in _ROWS if row.shape == "number"}
"""Measures that are one number."""
TARGETABLE = NUMBERS | OF_LOADS
"""What a target may name."""
ELSEWHERE = {"price", *OF_LOADS}
"""What an evaluation alone cannot tell."""
