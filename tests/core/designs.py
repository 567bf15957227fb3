"""Designs to test with: one to start from, and drawn ones for hypothesis."""

from __future__ import annotations

import copy
from typing import Any

from hypothesis import strategies as st

from ydrometer.document import design
from ydrometer.document.design import Document

PLAIN: dict[str, Any] = {
    "format": "ydrometer-design",
    "version": 1,
    "name": "Plain",
    "vehicle": {
        "mass": "14 kg",
        "wheel_diameter": "125 mm",
        "driven": "all",
        "rolling_resistance": 0.03,
        "drag_area": "0.05 m^2",
        "grip": 0.9,
    },
    "drive": {
        "units": 2,
        "supply": {"kind": "battery", "open_circuit_voltage": "25.2 V", "resistance": "24 mohm"},
        "branches": [
            {
                "source": {
                    "kind": "motor",
                    "constants": {"kv": "420 rpm/V", "resistance": "38 mohm", "no_load_current": "1.4 A"},
                    "rotor_inertia": "4.2e-5 kg*m^2",
                },
                "controller": {"current_limit": "22 A", "resistance": "4 mohm"},
                "stages": [{"kind": "gear", "driver_teeth": 15, "driven_teeth": 56, "module": "1 mm"}],
            }
        ],
        "stages": [{"kind": "belt", "driver_teeth": 18, "driven_teeth": 36, "pitch": "5 mm", "belt_teeth": 84}],
    },
    "run": {"distance": "25 m", "speed": "4 m/s"},
    "targets": [
        {"measure": "top_speed", "at_least": "8 m/s"},
        {"measure": "pushing_force", "at_least": "110 N"},
    ],
}

SIX_STAGES: dict[str, Any] = {
    "format": "ydrometer-design",
    "version": 1,
    "name": "Six stages, two branches",
    "vehicle": {"mass": "40 kg", "wheel_diameter": "200 mm", "driven": "all", "rolling_resistance": 0.02, "grip": 0.8},
    "drive": {
        "units": 1,
        "supply": {"kind": "battery", "open_circuit_voltage": "25.2 V", "resistance": "20 mohm"},
        "branches": [
            {
                "count": 2,
                "source": {
                    "kind": "motor",
                    "constants": {"kv": "420 rpm/V", "resistance": "38 mohm", "no_load_current": "1.4 A"},
                },
                "controller": {"current_limit": "60 A"},
                "stages": [
                    {"kind": "gear", "driver_teeth": 14, "driven_teeth": 56, "module": "1 mm"},
                    {"kind": "gear", "driver_teeth": 20, "driven_teeth": 40, "idlers": [24], "module": "1 mm"},
                ],
            },
            {
                "source": {
                    "kind": "motor",
                    "constants": {"kv": "600 rpm/V", "resistance": "60 mohm", "no_load_current": "1 A"},
                },
                "stages": [{"kind": "planetary", "reductions": [3.8, 3]}],
            },
        ],
        "stages": [
            {"kind": "belt", "driver_teeth": 18, "driven_teeth": 30, "pitch": "5 mm", "belt_teeth": 90},
            {"kind": "bevel", "driver_teeth": 16, "driven_teeth": 24},
            {"kind": "chain", "driver_teeth": 11, "driven_teeth": 14, "pitch": "6.35 mm", "links": 70},
        ],
    },
    "run": {"distance": "25 m"},
    "targets": [{"measure": "top_speed", "at_least": "3 m/s"}],
}
"""Two branches that join, six stages in all, of five kinds."""

REMOVED = object()


def changed(changes: dict[str, Any] | None = None, base: dict[str, Any] = PLAIN) -> dict[str, Any]:
    """The plain document with values at dotted paths replaced; list entries are plain numbers in the path."""
    raw = copy.deepcopy(base)
    for path, value in (changes or {}).items():
        *way, last = (int(key) if key.isdigit() else key for key in path.split("."))
        place: Any = raw
        for key in way:
            place = place.setdefault(key, {}) if isinstance(place, dict) else place[key]
        if value is REMOVED:
            del place[last]
        else:
            place[last] = value
    return raw


def read(changes: dict[str, Any] | None = None) -> Document:
    """The plain design, changed, as read."""
    return design.read(changed(changes))


GEAR = "drive.branches.0.stages.0"
MOTOR = "drive.branches.0.source"


@st.composite
def documents(draw: st.DrawFn) -> dict[str, Any]:
    """Designs over the whole of what this version computes, in sensible ranges."""
    number = lambda low, high: st.floats(low, high, allow_nan=False)  # noqa: E731
    mass = draw(number(0.5, 150.0))
    voltage = draw(number(6.0, 48.0))
    kv = draw(number(60.0, 800.0))
    return changed(
        {
            "vehicle.mass": mass,
            "vehicle.wheel_diameter": draw(number(0.04, 0.4)),
            "vehicle.rolling_resistance": draw(number(0.005, 0.06)),
            "vehicle.drag_area": draw(number(0.0, 0.5)),
            "vehicle.grip": draw(number(0.3, 1.2)),
            "vehicle.wheels_inertia": draw(number(0.0, 0.01)),
            "conditions": {"grade": draw(number(-0.05, 0.15))},
            "drive.units": draw(st.integers(1, 2)),
            "drive.supply": draw(supplies(voltage)),
            f"{MOTOR}.constants": {
                "kv": f"{kv} rpm/V",
                "resistance": draw(number(0.01, 0.3)),
                "no_load_current": draw(number(0.05, 1.5)),
            },
            "drive.branches.0.count": draw(st.integers(1, 3)),
            "drive.branches.0.controller": draw(
                st.just({}) | st.fixed_dictionaries({"current_limit": number(8.0, 120.0)})
            ),
            f"{GEAR}.driver_teeth": draw(st.integers(9, 30)),
            f"{GEAR}.driven_teeth": draw(st.integers(30, 90)),
        }
    )


def supplies(voltage: float) -> st.SearchStrategy[dict[str, Any]]:
    """Bench supplies, and batteries with and without a current limit."""
    battery = {
        "kind": st.just("battery"),
        "open_circuit_voltage": st.just(voltage),
        "resistance": st.floats(0.0, 0.15),
    }
    limited = {**battery, "current_limit": st.floats(15.0, 200.0)}
    return st.one_of(
        st.just({"kind": "bench", "voltage": voltage}),
        st.fixed_dictionaries(battery),
        st.fixed_dictionaries(limited),
    )


def motors(voltage: float) -> st.SearchStrategy[dict[str, Any]]:
    """A branch with a motor that suits the voltage."""
    number = lambda low, high: st.floats(low, high, allow_nan=False)  # noqa: E731
    source = st.builds(
        lambda kv, resistance, idle, inertia: {
            "kind": "motor",
            "constants": {"kv": f"{kv} rpm/V", "resistance": resistance, "no_load_current": idle},
            "rotor_inertia": inertia,
        },
        number(3000.0 / voltage, 9000.0 / voltage),
        number(0.004, 0.02).map(lambda share: share * voltage),
        number(0.05, 1.0),
        number(0.0, 1e-4),
    )
    return st.fixed_dictionaries(
        {
            "source": source,
            "controller": st.just({}) | st.fixed_dictionaries({"current_limit": number(8.0, 80.0)}),
            "stages": st.just([]) | st.just([{"kind": "planetary", "reductions": [1.5]}]),
            "count": st.integers(1, 2),
        }
    )


def engines() -> st.SearchStrategy[dict[str, Any]]:
    """A branch with an engine, governed by the falling end of its curve."""
    curve = st.builds(
        lambda torque, fall: [
            [f"{rpm} rpm", torque * share] for rpm, share in ((1500, 0.8), (3000, 1.0), (4500, 0.9), (5400, fall))
        ],
        st.floats(0.8, 4.0),
        st.sampled_from([0.0, 0.5]),
    )
    return st.builds(
        lambda points, engaged: {
            "source": {"kind": "engine", "torque_curve": points, "inertia": 4e-4},
            "clutch": {"engagement_speed": f"{engaged} rpm"},
        },
        curve,
        st.floats(1600.0, 2800.0),
    )


def all_supplies(voltage: float) -> st.SearchStrategy[dict[str, Any]]:
    """Besides batteries and bench supplies, panels."""
    panel = st.builds(
        lambda current, share: {
            "kind": "panel",
            "short_circuit_current": current,
            "open_circuit_voltage": voltage,
            "max_power_voltage": 0.8 * voltage,
            "max_power_current": share * current,
        },
        st.floats(5.0, 60.0),
        st.floats(0.85, 1.0),
    )
    return supplies(voltage) | panel


STAGES = (
    {"kind": "gear", "driver_teeth": 15, "driven_teeth": 45, "idlers": [20]},
    {"kind": "gear", "driver_teeth": 15, "driven_teeth": 60, "internal": True},
    {"kind": "bevel", "driver_teeth": 15, "driven_teeth": 30},
    {"kind": "gearbox", "ratio": 4.0},
    {"kind": "worm", "ratio": 5.0, "efficiency": 0.7},
    {"kind": "v_belt", "driver_pitch_diameter": "50 mm", "driven_pitch_diameter": "150 mm"},
    {"kind": "chain", "driver_teeth": 11, "driven_teeth": 33},
    {"kind": "planetary", "reductions": [3, 1.5]},
)


@st.composite
def whole_documents(draw: st.DrawFn) -> dict[str, Any]:
    """Designs over the whole of the model: every source, supply, drive and stage, in ranges people build."""
    number = lambda low, high: st.floats(low, high, allow_nan=False)  # noqa: E731
    voltage = draw(number(6.0, 48.0))
    branches = draw(st.lists(motors(voltage) | engines(), min_size=1, max_size=2))
    drive: dict[str, Any] = {"units": draw(st.integers(1, 2)), "branches": branches}
    if any(branch["source"]["kind"] == "motor" for branch in branches):
        drive["supply"] = draw(all_supplies(voltage))
    speeds = [
        {
            "kind": "speeds",
            "ratios": draw(st.sampled_from([[2.2, 1.0], [2.5, 1.4, 1.0]])),
            "shift_time": draw(number(0.0, 0.4)),
        }
    ]
    drive["stages"] = [*draw(st.just([]) | st.just(speeds)), draw(st.sampled_from(STAGES))]
    return {
        "format": "ydrometer-design",
        "version": 1,
        "vehicle": {
            "mass": draw(number(2.0, 120.0)),
            "wheel_diameter": draw(number(0.08, 0.3)),
            "wheels_inertia": draw(number(0.0, 0.01)),
            "rolling_resistance": draw(number(0.005, 0.05)),
            "drag_area": draw(number(0.0, 0.5)),
            "fixed_drag": draw(number(0.0, 2.0)),
            "grip": draw(number(0.3, 1.4)),
            **draw(st.sampled_from(AXLES)),
        },
        "conditions": {"grade": draw(number(-0.01, 0.12))},
        "drive": drive,
        "run": {"distance": draw(number(2.0, 40.0)), "time": draw(number(0.5, 4.0)), "speed": draw(number(0.5, 5.0))},
    }


@st.composite
def engine_documents(draw: st.DrawFn) -> dict[str, Any]:
    """Designs that engines alone drive, through two or three gears."""
    made = draw(whole_documents())
    ratios = draw(st.sampled_from([[2.2, 1.0], [2.5, 1.4, 1.0], [3.2, 1.9, 1.2]]))
    speeds = {"kind": "speeds", "ratios": ratios, "shift_time": draw(st.sampled_from([0.0, 0.1, 0.4]))}
    branches = draw(st.lists(engines(), min_size=1, max_size=2))
    made["drive"] = {"units": 1, "branches": branches, "stages": [speeds, made["drive"]["stages"][-1]]}
    return made


AXLES: tuple[dict[str, Any], ...] = (
    {"driven": "all"},
    {"driven": "all", "wheelbase": 0.4, "cg_ahead_of_rear": 0.15, "cg_height": 0.2},
    {"driven": "all", "driven_share": 0.7},
    {"driven": "rear", "wheelbase": 0.5, "cg_ahead_of_rear": 0.2, "cg_height": 0.15},
    {"driven": "rear", "wheelbase": 0.3, "cg_ahead_of_rear": 0.1, "cg_height": 0.25},
    {"driven": "front", "wheelbase": 0.5, "cg_ahead_of_rear": 0.3, "cg_height": 0.12},
    {"driven": "rear", "driven_share": 0.6},
)
