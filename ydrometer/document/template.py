"""A first design to change: a small vehicle that drives, so that an empty bench answers at once."""

from __future__ import annotations

from typing import Any


def new_vehicle(name: str) -> dict[str, Any]:
    """A document with one motor, one pair of gears and three targets; every value is meant to be replaced."""
    return {
        "format": "ydrometer-design",
        "version": 1,
        "name": name,
        "vehicle": {
            "mass": {"value": "5 kg", "origin": "assumed"},
            "wheel_diameter": {"value": "100 mm", "origin": "assumed"},
            "driven": "all",
            "rolling_resistance": {"value": 0.03, "origin": "assumed"},
            "grip": {"value": 0.8, "origin": "assumed"},
        },
        "drive": {
            "supply": {"kind": "battery", "open_circuit_voltage": "12.6 V", "resistance": "20 mohm"},
            "branches": [
                {
                    "count": 1,
                    "source": {
                        "kind": "motor",
                        "name": "motor",
                        "constants": {"kv": "600 rpm/V", "resistance": "60 mohm", "no_load_current": "1 A"},
                        "reversed": True,
                    },
                    "controller": {"current_limit": "40 A"},
                    "stages": [{"kind": "gear", "driver_teeth": 15, "driven_teeth": 60, "module": "1 mm"}],
                }
            ],
            "stages": [],
        },
        "run": {"distance": "10 m"},
        "targets": [
            {"measure": "top_speed", "at_least": "5 m/s"},
            {"measure": "time_to_distance", "at_most": "3 s"},
            {"measure": "pushing_force", "at_least": "30 N"},
        ],
    }
