"""The vehicles to start from: each a whole design whose values are typical ones, marked as assumed."""

from __future__ import annotations

import copy
import json
from dataclasses import dataclass
from functools import cache
from importlib import resources
from typing import Any, Literal, get_args

from ydrometer.document.template import new_vehicle

Key = Literal[
    "ride_on_motor",
    "ride_on_engine",
    "board",
    "contest_robot",
    "small_car",
    "class_model",
    "panel_car",
    "rail_hauler",
    "sled",
    "empty",
]
KEYS = get_args(Key)


@dataclass(frozen=True, slots=True)
class Start:
    """A vehicle to start from: its key, what it is called, and what it is in one sentence."""

    key: Key
    title: str
    words: str


STARTS = (
    Start("ride_on_motor", "Ride-on with a motor", "A seat, four wheels, one electric motor and a chain to the axle."),
    Start("ride_on_engine", "Ride-on with an engine", "An engine with its clutch, a V-belt, and a bought axle."),
    Start("board", "Board with one driven wheel", "A motor beside the wheel, a toothed belt, a rider standing."),
    Start("contest_robot", "Contest robot", "A left and a right drive unit, gears and then a belt each."),
    Start("small_car", "Small car", "A can motor, its pinion on a large spur gear."),
    Start("class_model", "Class model", "A toy motor with its box, geared up again to be quick down the corridor."),
    Start("panel_car", "Light car with a panel", "A light panel, a slow motor, one pair of gears."),
    Start("rail_hauler", "Hauler on rails", "Steel wheels on steel rails, two motors, chains, a driver on top."),
    Start("sled", "Tracked sled", "A rubber track on snow, one motor, a chain to the track's sprocket."),
    Start("empty", "Empty bench", "A motor and one pair of gears, to be made into whatever it is."),
)
BY_KEY: dict[str, Start] = {start.key: start for start in STARTS}


def design_of(start: Start) -> dict[str, Any]:
    """A copy of its design document, as typed."""
    return new_vehicle(start.title) if start.key == "empty" else copy.deepcopy(_design(start.key))


@cache
def _design(key: str) -> dict[str, Any]:
    document: dict[str, Any] = json.loads(resources.files(__package__).joinpath("designs", f"{key}.json").read_text())
    return document
