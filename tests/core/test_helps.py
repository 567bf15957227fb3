"""What Fit lists and what it says would help, taken as the page takes it, looked at again: on plates drawn by lot."""

from __future__ import annotations

import copy
import itertools
import re
from typing import Any
from unittest import TestCase

import numpy as np

from tests.core.designs import changed
from tests.core.plates import AXLE, JACK, MOTOR, at, shaft
from ydrometer.document import design
from ydrometer.fit.clashes import IN_PLANE
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.help import Help
from ydrometer.fit.places import Placing
from ydrometer.fit.setting_up import set_up
from ydrometer.fit.setup import Setup
from ydrometer.fit.stock import Stock, stock_of
from ydrometer.fit.toothing import carried
from ydrometer.fit.ways import ways

BELTS = stock_of([{"kind": "belt", "id": f"b{n}", "pitch": "5 mm", "teeth": n, "owned": 1} for n in range(60, 121)])
DRAWN = 30


def drawn(lot: np.random.Generator) -> dict[str, Any]:
    """A gear and a belt on a plate: where the motor and the axle stand, how, and what else is there, by lot."""
    small, both = int(lot.integers(12, 24)), int(lot.choice([48, 48, 53, 60, 72, 75]))
    gear = {"kind": "gear", "module": "1 mm", "driver_teeth": small, "driven_teeth": both - small}
    belt: dict[str, Any] = {
        "kind": "belt",
        "pitch": "5 mm",
        "driver_teeth": 18,
        "driven_teeth": int(lot.integers(18, 40)),
    }
    if lot.random() < 0.4:
        belt["belt_teeth"] = int(lot.integers(62, 110))
    x, y = 12 * int(lot.integers(1, 8)), 12 * int(lot.integers(2, 6))
    slotted = {"shaft": AXLE, "mount": "slot", "slot": {"start": at(x + 100, y), "end": at(x + 100 + 5 * small, y)}}
    fixed = shaft(AXLE, x + 120 + int(lot.integers(0, 5)), y, diameter="8 mm")
    axle = [slotted, fixed, {"shaft": AXLE, "mount": "holes"}][lot.integers(3)]
    fit: dict[str, Any] = {
        "plate": {"hole_pitch": "12 mm", "across": 24, "up": 8},
        "shafts": [shaft(MOTOR, x, y, diameter="5 mm"), {"shaft": JACK, "mount": "holes"}, axle],
        "frame": [{"name": "rail", "start": at(0, y + 90), "end": at(200, y + 90)}],
        "ground_gap": "0 mm",
        "loop_tolerance": f"{lot.choice([0.3, 1.0])} mm",
    }
    if lot.random() < 0.5:
        fit["tolerance"] = "1.2 mm"
    if lot.random() < 0.4:
        pressed = {"at": at(x + 70, y + int(lot.integers(-60, 60))), "diameter": f"{lot.integers(12, 60)} mm"}
        fit["loops"] = [{"stage": AXLE, "tensioner": {**pressed, "outside": bool(lot.integers(2))}}]
    vehicle = {"vehicle.wheel_diameter": "400 mm"}
    return {**changed({"drive.branches.0.stages": [gear], "drive.stages": [belt], **vehicle}), "fit": fit}


def placed(raw: dict[str, Any], way: Placing) -> dict[str, Any]:
    """A design with its shafts, and the lengths of its loops, as a way has them."""
    made = copy.deepcopy(raw)
    for entry in made["fit"]["shafts"]:
        if entry.get("mount") != "slot":
            entry["at"] = list(way.at[entry["shaft"]])
    for length in way.lengths.values():
        made["drive"]["stages"][0]["belt_teeth"] = int(length.split()[0])
    return made


def helped(raw: dict[str, Any], help_: Help) -> dict[str, Any]:
    """A design with all that a help takes."""
    made = placed(raw, help_.way)
    for path, teeth in help_.teeth.items():
        stage = (
            made["drive"]["stages"][0] if path.startswith("drive.stages") else made["drive"]["branches"][0]["stages"][0]
        )
        stage[path.rpartition(".")[2]] = teeth
    if help_.idler is not None:
        idler = help_.idler
        tensioner = {"at": list(idler.at), "diameter": idler.diameter, "outside": idler.outside}
        made["fit"]["loops"] = [{"stage": idler.stage, "tensioner": tensioner}]
    if help_.slot is not None:
        slot = {"start": list(help_.slot.start), "end": list(help_.slot.end)}
        said = next(entry for entry in made["fit"]["shafts"] if entry["shaft"] == help_.slot.shaft)
        said.update(mount="slot", slot=slot)
        del said["at"]
    if help_.tolerance is not None:
        made["fit"]["tolerance"] = help_.tolerance
    return made


def looked_at(raw: dict[str, Any], stock: Stock) -> tuple[Setup, list[str]]:
    setup = set_up(design.read(raw).design, stock)
    return setup, [clash.text for check in IN_PLANE for clash in check(setup) if clash.level == "clash"]


def meshes(setup: Setup) -> list[Coupling]:
    return [coupling for coupling in setup.plane.couplings if not coupling.is_loop]


class Taken(TestCase):
    def test_no_listed_way_and_no_help_leaves_a_clash_or_too_little_contact(self) -> None:
        lot = np.random.default_rng(34)
        kinds = set[str]()
        for number in range(DRAWN):
            raw = drawn(lot)
            answer = ways(set_up(design.read(raw).design, BELTS))
            tried = [(f"way {way.at}", placed(raw, way)) for way in itertools.islice(answer.ways, 0, 60, 6)]
            tried += [(help_.text, helped(raw, help_)) for help_ in answer.helps]
            for text, made in tried:
                kinds.add(re.sub(r"[\d.]+", "", text).strip()[:12])
                setup, clashing = looked_at(made, BELTS)
                with self.subTest(drawn=number, tried=text):
                    self.assertEqual(clashing, [])
                    self.assertTrue(all(carried(setup, mesh) >= 1.1 - 1e-9 for mesh in meshes(setup)))
        for kind in ("way", "another leng", "an idler of", "a slot of", "mm more tole"):
            self.assertTrue(any(tried.startswith(kind) for tried in kinds), kind)


class Counted(TestCase):
    def test_a_way_is_listed_where_looking_at_every_hole_finds_no_clash(self) -> None:
        lot = np.random.default_rng(43)
        going = 0
        for number in range(18):
            raw = drawn(lot)
            axle = raw["fit"]["shafts"][2]
            axle.clear()
            axle.update(shaft(AXLE, 12 * int(lot.integers(9, 14)), 12 * int(lot.integers(0, 7))))
            raw["fit"]["plate"].update(across=14, up=7)
            setup = set_up(design.read(raw).design, BELTS)
            holes = setup.mounting.plate.holes() if setup.mounting.plate else ()
            found = 0
            for hole in holes:
                raw["fit"]["shafts"][1]["at"] = list(hole)
                found += not looked_at(raw, BELTS)[1]
            del raw["fit"]["shafts"][1]["at"]
            with self.subTest(drawn=number):
                self.assertEqual(ways(setup).count, found)
            going += found
        self.assertGreater(going, 3)
