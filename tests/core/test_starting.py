"""Vehicles to start from, and what the answers make of them."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from ydrometer.base.errors import DocumentError
from ydrometer.base.tables.typical import FOOTINGS
from ydrometer.document.design import read
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.messages import messages
from ydrometer.screens.gauge_bands import uncertainties
from ydrometer.screens.starts_shown import starts_shown
from ydrometer.starting.answers import CELLS, SIZES, begun
from ydrometer.starting.pictures import PICTURES
from ydrometer.starting.starts import BY_KEY, STARTS, design_of

BOARD = BY_KEY["board"]


def refused(start: str, answers: dict[str, Any]) -> list[str]:
    try:
        begun(BY_KEY[start], answers)
    except DocumentError as error:
        return [fault.path for fault in error.faults]
    return []


class Starts(TestCase):
    def test_each_is_a_whole_design_that_does_what_it_is_for(self) -> None:
        for start in STARTS:
            with self.subTest(start.key):
                evaluation = evaluate([read(design_of(start))])
                self.assertTrue(evaluation.starts(0))
                for target in evaluation.documents[0].design.targets:
                    self.assertTrue(evaluation.judge(target, 0).verdict.met, target)
                self.assertNotIn("backwards", " ".join(m.text for m in messages(evaluation) if m.level == "warning"))

    def test_whatever_nobody_has_measured_is_marked_so(self) -> None:
        for start in STARTS[:-1]:
            document = read(design_of(start))
            own = [p for p, v in document.values.items() if v.origin == "given" and p.startswith("vehicle.")]
            self.assertEqual(own, [], start.key)

    def test_each_has_a_picture_to_scale(self) -> None:
        self.assertEqual(set(PICTURES), set(BY_KEY))
        for start in STARTS[:-1]:
            radius = read(design_of(start)).design.vehicle.wheel_diameter / 2
            driven = [wheel.radius for wheel in PICTURES[start.key].wheels if wheel.driven]
            self.assertEqual(driven[0], radius, start.key)

    def test_what_is_offered_after_it_names_what_it_has(self) -> None:
        for shown in starts_shown().starts[:-1]:
            self.assertIn(shown.footing, {footing.words for footing in FOOTINGS})
            self.assertEqual(bool(shown.size), shown.source == "motor")
            self.assertEqual(bool(shown.cells), shown.supply == "battery")

    def test_assumed_values_come_in_the_order_in_which_they_matter(self) -> None:
        for start in STARTS:
            guesses = uncertainties(design_of(start), assumed=True).guesses
            self.assertGreater(len(guesses), 3)
            self.assertGreater(guesses[0].share, 0.1, start.key)
        self.assertEqual(uncertainties(design_of(BOARD), assumed=True).guesses[0].name, "the grip")


class Answers(TestCase):
    def test_left_alone_it_stays_as_it_is(self) -> None:
        for start in STARTS:
            self.assertEqual(begun(start, {}), {**design_of(start), "name": start.title})

    def test_each_answer_goes_where_it_belongs(self) -> None:
        made = begun(
            BOARD,
            {
                "name": "Mine",
                "mass": "180 lb",
                "wheel_diameter": "97 mm",
                "footing": "polyurethane wheel on concrete",
                "motor": {"size": "large outrunner", "kv": "170 rpm/V"},
                "pack": {"cells": "lithium round cell for power tools", "voltage": "36 V", "capacity": "4 A*h"},
                "goals": [{"at_least": "6 m/s"}, {}],
            },
        )
        document = read(made)
        self.assertEqual(made["vehicle"]["mass"], "180 lb")
        self.assertEqual(document.design.vehicle.payload, 0.0)
        self.assertIn("polyurethane wheel on concrete", document.values["vehicle.grip"].note)
        self.assertEqual(made["targets"][0], {"measure": "top_speed", "at_least": "6 m/s"})
        self.assertEqual(made["targets"][1], design_of(BOARD)["targets"][1])
        self.assertIn("9 lithium", document.values["drive.supply.resistance"].note)
        self.assertEqual(document.values["drive.branches[0].source.constants.kv"].origin, "given")

    def test_every_label_makes_a_design(self) -> None:
        for size in SIZES:
            begun(BOARD, {"motor": {"size": size, "kv": "400 rpm/V"}})
        for cells in CELLS:
            begun(BOARD, {"pack": {"cells": cells, "voltage": "24 V", "capacity": "5 A*h"}})

    def test_an_engine_gives_its_power_at_its_speed(self) -> None:
        made = read(begun(BY_KEY["ride_on_engine"], {"engine": {"power": "4 kW", "speed": "3600 rpm"}})).design
        curve = made.drive.branches[0].source.torque_curve  # type: ignore[union-attr]
        self.assertAlmostEqual(max(w * t for w, t in curve), 4000.0, delta=40.0)

    def test_parts_of_the_bin_come_with_what_belongs_to_them(self) -> None:
        source = design_of(BOARD)["drive"]["branches"][0]["source"]
        parts = [
            {"id": "m", "kind": "motor", "source": {**source, "name": "mine"}, "controller": {"current_limit": "9 A"}},
            {"id": "b", "kind": "battery", "supply": {"kind": "battery", "open_circuit_voltage": "12 V"}},
        ]
        drive = begun(BOARD, {"source": "m", "supply": "b"}, parts)["drive"]
        self.assertEqual(drive["branches"][0]["source"]["name"], "mine")
        self.assertEqual(drive["branches"][0]["controller"], {"current_limit": "9 A"})
        self.assertEqual(drive["supply"]["open_circuit_voltage"], "12 V")

    def test_nonsense_is_refused_where_it_was_said(self) -> None:
        self.assertEqual(refused("board", {"mass": "much"}), ["answers.mass"])
        self.assertEqual(refused("board", {"motor": {"size": "huge", "kv": "1 rpm/V"}}), ["answers.motor.size"])
        self.assertEqual(refused("board", {"source": "gone"}), ["answers.source"])
        self.assertEqual(
            refused("board", {"source": "m", "motor": {"size": "large outrunner", "kv": "9 rpm/V"}}), ["answers.source"]
        )
        self.assertEqual(refused("board", {"goals": [{"at_least": "6 kg"}]}), ["targets[0].at_least"])
        self.assertEqual(refused("board", {"goals": [{"measure": "price"}]}), ["answers.goals[0]"])
        self.assertEqual(refused("board", {"goals": 3, "colour": "red"}), ["answers.colour", "answers.goals"])
