"""Plates to test with: shafts by their paths, and a design with its mounting as Fit sees it."""

from __future__ import annotations

from typing import Any

from tests.core.designs import changed
from ydrometer.document import design
from ydrometer.fit.clash import Clash
from ydrometer.fit.stock import stock_of
from ydrometer.screens.mounted import OnPlate, mounted

MOTOR, JACK, AXLE = "drive.branches[0].source", "drive.branches[0].stages[0]", "drive.stages[0]"
PLATE = {"hole_pitch": "12 mm", "across": 30, "up": 10}
CHAIN = {"kind": "chain", "driver_teeth": 12, "driven_teeth": 40, "pitch": "9.525 mm", "links": 80}
V_BELT = {"kind": "v_belt", "driver_pitch_diameter": "60 mm", "driven_pitch_diameter": "150 mm"}


def read(fit: dict[str, Any], **edits: Any) -> design.Document:
    return design.read({**changed(edits), "fit": fit})


def at(x: float, y: float) -> list[str]:
    return [f"{x} mm", f"{y} mm"]


def shaft(path: str, x: float, y: float, mount: str = "fixed", **more: Any) -> dict[str, Any]:
    return {"shaft": path, "mount": mount, "at": at(x, y), **more}


def look(fit: dict[str, Any], parts: Any = (), **edits: Any) -> OnPlate:
    return mounted(read(fit, **edits), stock_of(parts)).plates[0]


def about(plate: OnPlate, words: str) -> list[Clash]:
    return [clash for clash in plate.clashes if words in clash.text]
