"""What the inputs and measures of a design are called in sentences."""

from __future__ import annotations

import re

from ydrometer.document.design import Design
from ydrometer.document.stages import KINDS
from ydrometer.document.walk import stages_with_paths

INPUTS = {
    "mass": "the mass",
    "payload": "the payload",
    "wheel_diameter": "the rolling diameter",
    "rolling_resistance": "the rolling resistance",
    "fixed_drag": "the fixed drag",
    "drag_area": "the drag area",
    "grip": "the grip",
    "cg_height": "the height of the centre of mass",
    "cg_ahead_of_rear": "where the centre of mass sits",
    "brake_force": "the brake force",
    "kv": "the motor's speed constant",
    "no_load_current": "the motor's no-load current",
    "open_circuit_voltage": "the supply's voltage",
    "cell_voltage": "the voltage of a cell",
    "cell_resistance": "the resistance of a cell",
    "grade": "the slope",
}
_STAGE = re.compile(r"(.*stages\[\d+\])\.(\w+)")
LONGEST_KIND = 40


def stage_noun(kind: str) -> str:
    """A stage in a sentence; of a document that need not be valid also a kind that nobody knows."""
    return KINDS[kind].noun if kind in KINDS else kind[:LONGEST_KIND]


def input_name(design: Design, path: str) -> str:
    """An input of the design in words: "the efficiency of the chain"."""
    stage = _STAGE.fullmatch(path)
    if stage is not None:
        noun = {p: s.noun for p, s in stages_with_paths(design)}[stage[1]]
        return f"the {stage[2].replace('_', ' ')} of the {noun}"
    place, _, key = path.rpartition(".")
    if key == "resistance":
        return "the supply's resistance" if place.endswith("supply") else "the motor's resistance"
    return INPUTS.get(key, f"the {key.replace('_', ' ')}")


MEASURES = {
    "time_to_distance": "the time over the distance",
    "speed_at_distance": "the speed at the distance",
    "time_to_speed": "the time to the speed",
    "distance_in_time": "the distance in the time",
    "max_grade": "the steepest slope",
    "energy_per_run": "the energy of a run",
    "peak_bus_current": "the largest supply current",
    "sprint_and_stop": "the time of sprint and stop",
    "no_load_wheel_rpm": "the wheel's speed in the air",
    "launch_acceleration": "the pull away",
    "endurance_at_top": "the time at top speed",
    "range_at_top": "the range at top speed",
}


def measure_name(name: str) -> str:
    """A measure in words, as it stands in a sentence."""
    return MEASURES.get(name, name.replace("_", " ").replace("bus current", "supply current"))
