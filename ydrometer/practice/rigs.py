"""Small vehicles for exercises: without losses but those that are told, so that a learner's sum is the model's."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

from ydrometer.document import design
from ydrometer.document.stages import Stage
from ydrometer.evaluation.evaluate import Evaluation, evaluate
from ydrometer.evaluation.train import overall

PLENTY = 5.0
"""Grip of a vehicle whose wheels are not to spin."""


def gears(driver: int, driven: int, **more: Any) -> dict[str, Any]:
    """A pair of gears without loss."""
    return {"kind": "gear", "driver_teeth": driver, "driven_teeth": driven, "module": "1 mm", "efficiency": 1.0, **more}


def ratio(driver: int, driven: int) -> float:
    """Ratio of a pair by itself."""
    return driven / driver


def rig(
    stages: Sequence[dict[str, Any]],
    *,
    wheel: float = 0.1,
    turns: float = 500.0,
    volts: float = 12.0,
    resistance: float = 0.05,
    pack: float = 0.0,
    limit: float | None = None,
    mass: float = 1000.0,
    grip: float = PLENTY,
    count: int = 1,
    grade: float = 0.0,
    name: str = "Exercise",
) -> dict[str, Any]:
    """A design file of a vehicle with one branch.

    Args:
        stages: from the motor on.
        wheel: rolling diameter, m.
        turns: of the motor without load, rad/s.
        volts: of the supply at rest.
        resistance: of the winding, ohm.
        pack: resistance of the battery, ohm; without any it is a bench supply.
        limit: of the controller, A.
        mass: kg.
        grip: of the wheels.
        count: motors on the first gear.
        grade: slope, rise over run.
        name: of the vehicle.
    """
    supply: dict[str, Any] = {"kind": "bench", "voltage": f"{volts:.9g} V"}
    if pack:
        supply = {"kind": "battery", "open_circuit_voltage": f"{volts:.9g} V", "resistance": f"{pack:.9g} ohm"}
    constants = {"kv": turns / volts, "resistance": resistance, "no_load_current": 0.0}
    branch: dict[str, Any] = {
        "count": count,
        "source": {"kind": "motor", "constants": constants},
        "stages": list(stages),
    }
    if limit is not None:
        branch["controller"] = {"current_limit": f"{limit:.9g} A"}
    vehicle = {
        "mass": mass,
        "wheel_diameter": wheel,
        "driven": "all",
        "rolling_resistance": 0.0,
        "drag_area": 0.0,
        "grip": grip,
    }
    return {
        "format": "ydrometer-design",
        "version": 1,
        "name": name,
        "vehicle": vehicle,
        "drive": {"units": 1, "supply": supply, "branches": [branch], "stages": []},
        **({"conditions": {"grade": grade}} if grade else {}),
    }


def with_torque(torque: float, stages: Sequence[dict[str, Any]], *, limit: float = 20.0, **more: Any) -> dict[str, Any]:
    """A rig whose motor gives this torque at its controller's limit, N·m."""
    volts = 24.0
    return rig(stages, volts=volts, turns=volts * limit / torque, resistance=0.1, limit=limit, **more)


def evaluated(*raw: dict[str, Any]) -> Evaluation:
    """Designs with all their measures."""
    return evaluate([design.read(document) for document in raw])


def measured(raw: dict[str, Any], name: str) -> float:
    """One measure of a design that has it, SI; of several the first."""
    value = evaluated(raw).value(name, 0)
    return float(value[0] if isinstance(value, list) else value)


def stages_of(*raw: dict[str, Any]) -> tuple[Stage, ...]:
    """Stages by themselves."""
    return design.read_stages(list(raw))


def reduction(*raw: dict[str, Any]) -> float:
    """Overall torque ratio of stages in a row."""
    reduced: float = overall(stages_of(*raw)).torque
    return reduced


def sense(*raw: dict[str, Any]) -> int:
    """+1 where the last wheel turns the way the first one does, −1 where it turns against it."""
    return math.prod(stage.rotation for stage in stages_of(*raw))
