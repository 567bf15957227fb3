"""Loads told elsewhere: warnings, usual values, targets, the turn, the day as it is drawn, what parts bring."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any, ClassVar
from unittest import TestCase

from tests.core.designs import changed
from ydrometer.base.labels import labelled_fields
from ydrometer.document import design
from ydrometer.document.sources import motor_line
from ydrometer.document.stages import KINDS
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.files import answer
from ydrometer.loads.limits import limits
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.offers import offers
from ydrometer.loads.summary import in_short, known, told_by_loads
from ydrometer.loads.turning import turn_remark
from ydrometer.loads.warnings import warnings
from ydrometer.parts.cells import cell_text, cell_value
from ydrometer.parts.columns import TABLE
from ydrometer.parts.read import read_part
from ydrometer.screens.day_shown import day_shown
from ydrometer.screens.live import look
from ydrometer.screens.loads import RowWanted, loads_shown, working_shown
from ydrometer.working.recipes import NoWorkingError

DEMO = Path(__file__).parents[2] / "server" / "demo" / "vehicles"
CONTROLLER = "drive.branches.0.controller"
SOURCE = "drive.branches.0.source"
GEARS = "drive.branches[0].stages[0]"


def asked(changes: dict[str, Any]) -> LoadCase:
    return LoadCase(evaluate([design.read(changed(changes))]))


def demo(name: str) -> dict[str, Any]:
    made: dict[str, Any] = json.loads((next(DEMO.glob(f"*-{name}")) / "2.json").read_text())
    return made


class Warnings(TestCase):
    def texts(self, changes: dict[str, Any]) -> str:
        return "\n".join(f"{word.path}: {word.text}" for word in warnings(asked(changes)))

    def test_what_a_stalled_motor_draws_is_told_by_all_that_stands_in_its_way(self) -> None:
        pack = {"kind": "battery", "open_circuit_voltage": "25.2 V", "resistance": "24 mohm"}
        for resistance in ("0 ohm", "50 mohm"):
            bare = {"drive.branches.0.controller": {"resistance": resistance}, "drive.supply": pack}
            words = [word.text for word in warnings(asked(bare)) if "Held still" in word.text]
            motor = motor_line(asked(bare).design.drive.branches[0].source)  # type: ignore[arg-type]  # a motor
            current = 25.2 / (motor.resistance + (0.05 if resistance != "0 ohm" else 0.0))
            self.assertIn(f"would draw {current:.3g} A,", " ".join(words))

    def test_nothing_is_said_of_a_design_without_ratings_that_is_held_back(self) -> None:
        self.assertEqual(self.texts({}), "")

    def test_ratings_that_contradict_each_other(self) -> None:
        below = self.texts({f"{SOURCE}.peak_current": "20 A", f"{SOURCE}.continuous_current": "30 A"})
        self.assertIn("source: The motor's peak current of 20 A is below its continuous 30 A", below)
        over = {CONTROLLER: {"current_limit": "60 A", "peak_current": "40 A"}}
        self.assertIn("set to 60 A, above the 40 A", self.texts(over))

    def test_a_stall_current_that_nobody_has_looked_up(self) -> None:
        # 25.2 V over 38 mΩ of the winding.
        self.assertIn("Held still at 25.2 V one motor would draw 663 A", self.texts({CONTROLLER: {}}))
        self.assertEqual(self.texts({CONTROLLER: {}, f"{SOURCE}.peak_current": "700 A"}), "")

    def test_a_fuse_that_blows_in_the_first_shove_and_a_bus_that_drops_out(self) -> None:
        supply = {"drive.supply.fuse": {"rating": "0.5 A"}, "drive.supply.cutoff_voltage": "25.1 V"}
        found = self.texts(supply)
        self.assertIn("The fuse of 0.5 A need not carry the first shove", found)
        self.assertIn("below the 25.1 V at which electronics drop out", found)

    def test_an_engine_over_its_safe_speed_with_the_wheels_in_the_air(self) -> None:
        raw = demo("turnstone")
        raw["drive"]["branches"][0]["source"]["max_speed"] = "1000 rpm"
        found = warnings(LoadCase(evaluate([design.read(raw)])))
        self.assertIn("never defeat its governor", found[0].text)


class Turning(TestCase):
    WIDE: ClassVar = {"vehicle.wheelbase": "300 mm", "vehicle.track": "250 mm"}

    def test_a_turn_that_draws_more_than_a_shove_is_told_on_every_screen(self) -> None:
        # A shove is held still and takes heat alone; a turn takes the work of sliding as well.
        raw = changed({**self.WIDE, "vehicle.driven": "all"})
        rows = [message.text for message in look(raw).messages if "on the spot" in message.text]
        self.assertEqual(rows, [turn_remark(evaluate([design.read(raw)]))])
        self.assertRegex(rows[0], r"draws [\d.]+ A from the supply, more than the [\d.]+ A of a shove")

    def test_motors_that_stall_are_told(self) -> None:
        raw = changed({**self.WIDE, "vehicle.driven": "all", CONTROLLER: {"current_limit": "2 A"}})
        self.assertIn(
            "cannot turn on the spot: its motors stall there at 2 A each", turn_remark(evaluate([design.read(raw)]))
        )
        self.assertTrue(any("stall there" in message.text for message in look(raw).messages))


class Targets(TestCase):
    ASKED: ClassVar = [
        {"measure": "worst_use", "at_most": "90 %"},
        {"measure": "winding_temperature", "at_most": "110 degC"},
    ]

    def test_they_are_judged_by_loads_and_by_nothing_else(self) -> None:
        raw = {**demo("knot"), "targets": self.ASKED}
        gauges = look(raw).gauges[:2]
        self.assertEqual([gauge.standing for gauge in gauges], ["unknown", "unknown"])
        shown = loads_shown(design.read(raw)).targets
        self.assertEqual([target.standing for target in shown], ["misses", "misses"])
        printed = answer.result(design.read(raw))["targets"]
        self.assertAlmostEqual(printed[0]["value"], shown[0].value or 0.0)
        self.assertFalse(printed[0]["met"])

    def test_nothing_is_worked_out_where_no_target_asks(self) -> None:
        self.assertEqual(told_by_loads(evaluate([design.read(changed({}))])), {})

    def test_the_hottest_winding_of_all_branches_counts(self) -> None:
        raw = demo("knot")
        branch = raw["drive"]["branches"][0]
        cooler = {**branch, "source": {**branch["source"], "mass": "90 g"}}
        raw["drive"]["branches"] = [branch, cooler]
        rows = limits(evaluate([design.read(raw)]))
        hottest = [warmth.day.hottest_winding for warmth in rows.case.warmth.values()]
        self.assertGreater(abs(hottest[0] - hottest[1]), 1.0)
        self.assertEqual(known(rows)["winding_temperature"], max(hottest))

    def test_in_short(self) -> None:
        short = in_short(evaluate([design.read(demo("dunlin"))]))
        self.assertEqual(short.state, "over")
        self.assertIn("distance in which it has to stop", short.words)


class Shown(TestCase):
    def test_the_mark_is_told_beside_each_part(self) -> None:
        raw = demo("sandpiper")
        mark = design.read({**raw, "loads": {**raw.get("loads", {}), "service": "heavy"}})
        parts = {part.title: part for part in loads_shown(design.read(raw), mark).parts}
        belt = parts["gears"]
        self.assertGreater(belt.mark or 0.0, belt.rows[0].use or 0.0)
        self.assertIsNone(loads_shown(design.read(raw)).parts[0].mark)

    def test_the_doubt_lies_around_the_curve_and_moving_air_below_it(self) -> None:
        (heat,) = day_shown(design.read(demo("knot"))).heat
        for (_, warm), (_, low, high), (_, air) in zip(heat.winding, heat.band, heat.air, strict=True):
            self.assertTrue(low <= warm <= high)
            self.assertLessEqual(air, warm + 1e-9)

    def test_a_current_is_drawn_over_one_heat_with_its_ratings(self) -> None:
        (motor, battery) = day_shown(design.read(demo("sandpiper"))).currents
        self.assertEqual(
            [rating.words for rating in motor.ratings], ["motor for a moment", "motor for long", "controller for long"]
        )
        self.assertEqual(motor.points[0], [0.0, 0.0])
        self.assertAlmostEqual(max(amps for _, amps in motor.points), 22.0, places=5)
        times = [time for time, _ in battery.points]
        self.assertEqual(times, sorted(times))

    def test_cautions_stand_where_something_is_near(self) -> None:
        rows = [row for part in loads_shown(design.read(demo("sandpiper"))).parts for row in part.rows]
        self.assertTrue(all(bool(row.caution) <= (row.state in {"near", "over"}) for row in rows))
        self.assertTrue(any("fuse or breaker" in row.caution for row in rows))

    def test_the_working_of_a_row_that_is_gone_is_refused(self) -> None:
        with self.assertRaises(NoWorkingError):
            working_shown(design.read(changed({})), RowWanted("fuse", "drive.supply", "", ""))


class Offers(TestCase):
    def of(self, check: str, changes: dict[str, Any]) -> list[tuple[str, str]]:
        document = design.read(changed(changes))
        rows = [row for row in limits(evaluate([document])).rows if row.check == check]
        return [(offer.value, offer.of) for offer in offers(document.design, rows[0])]

    def test_each_says_what_it_is_usual_of(self) -> None:
        self.assertIn(("155 degC", "insulation of class F"), self.of("winding_temperature", {}))
        self.assertEqual(
            self.of("belt_force", {}),
            [("16 N/mm", "curved belts of 5 mm pitch"), ("9 N/mm", "trapezoidal belts of 5 mm pitch")],
        )

    def test_none_where_the_maker_has_said_it(self) -> None:
        self.assertEqual(self.of("belt_force", {"drive.stages.0.allowed_force_per_width": "12 N/mm"}), [])

    def test_each_can_be_read(self) -> None:
        chain = {"kind": "chain", "driver_teeth": 12, "driven_teeth": 24, "pitch": "6.35 mm"}
        document = design.read(changed({"drive.stages": [chain]}))
        row = next(row for row in limits(evaluate([document])).rows if row.check == "chain_force")
        (offer,) = offers(document.design, row)
        taken = design.read(changed({"drive.stages": [{**chain, "breaking_load": offer.value}]}))
        self.assertEqual(taken.values[offer.path].si, 3500.0)


class Bringing(TestCase):
    def test_all_keys_are_keys_of_the_kind(self) -> None:
        for name, kind in KINDS.items():
            known = {field.key for field in labelled_fields(kind)} | {"torque_ratings"}
            for bring in kind.brings:
                with self.subTest(kind=name, key=bring.key):
                    self.assertIn(bring.to.format(member="driver"), known)

    def test_ratings_of_steps_are_a_cell(self) -> None:
        column = next(c for c in TABLE["gearbox"].columns if c.path == "torque_ratings")
        part = {"kind": "gearbox", "id": "p", "reductions": [4, 3], "torque_ratings": ["2 N*m", None]}
        text = cell_text(column, part)
        self.assertEqual(text, "2 N*m; -")
        self.assertEqual(cell_value(column, text), ["2 N*m", None])
        self.assertEqual(read_part(part).torque_ratings, (2.0, None))  # type: ignore[attr-defined]
