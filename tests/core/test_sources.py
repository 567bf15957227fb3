"""Motors by both sets of numbers, engines, supplies, and the curves drawn of them."""

import math
import unittest
from typing import Any

from tests.core.designs import MOTOR, changed, read
from ydrometer.document import design
from ydrometer.document.sources import Motor, motor_line
from ydrometer.document.supply import Battery
from ydrometer.evaluation.cautions import cautions
from ydrometer.evaluation.curves import force_curve, run_curve, source_curve, supply_curve
from ydrometer.evaluation.evaluate import evaluate

POINTS = {
    "nominal_voltage": "12 V",
    "free_speed": "7400 rpm",
    "free_current": "0.5 A",
    "stall_torque": "0.11 N*m",
    "stall_current": "8.2 A",
}
PANEL = {
    "kind": "panel",
    "short_circuit_current": 1.4,
    "open_circuit_voltage": 22.0,
    "max_power_voltage": 17.8,
    "max_power_current": 1.3,
}
ENGINE = {
    "source": {"kind": "engine", "torque_curve": [["1800 rpm", "6 N*m"], ["3600 rpm", "5 N*m"]]},
    "clutch": {"engagement_speed": "2200 rpm"},
}


def motor(changes: dict[str, Any]) -> Motor:
    source = read(changes).design.drive.branches[0].source
    assert isinstance(source, Motor)
    return source


class Motors(unittest.TestCase):
    def test_constants(self) -> None:
        line = motor_line(motor({}))
        self.assertAlmostEqual(line.ke, 60 / (2 * math.pi * 420))
        self.assertEqual(line.ke, line.kt)

    def test_bench_points_are_passed_through_exactly(self) -> None:
        line = motor_line(motor({MOTOR: {"kind": "motor", "bench_points": POINTS}}))
        free = 7400 * 2 * math.pi / 60
        current = (12.0 - line.ke * free) / line.resistance
        self.assertAlmostEqual(current, 0.5)
        self.assertAlmostEqual(line.kt * (12.0 / line.resistance - line.no_load_current), 0.11)

    def test_the_curve_bends_where_the_controller_holds(self) -> None:
        curve = source_curve(read().design)
        self.assertEqual(len(curve.x), 3)
        self.assertAlmostEqual(curve.y[0], curve.y[1])
        self.assertAlmostEqual(curve.y[2], 0.0)

    def test_an_engines_curve_is_its_points(self) -> None:
        raw = changed({"drive.branches": [ENGINE]})
        del raw["drive"]["supply"]
        curve = source_curve(design.read(raw).design)
        self.assertAlmostEqual(curve.x[1], 3600 * 2 * math.pi / 60)
        self.assertEqual(curve.y, [6.0, 5.0])


class Supplies(unittest.TestCase):
    def test_a_panels_pieces_meet_at_its_points(self) -> None:
        supply = read({"drive.supply": PANEL}).design.drive.supply
        assert supply is not None
        nothing, upper, lower = supply.pieces
        for piece, voltage, current in ((upper, 22.0, 0.0), (upper, 17.8, 1.3), (lower, 17.8, 1.3), (lower, 0.0, 1.4)):
            self.assertAlmostEqual(piece.p * voltage + piece.q * current, piece.s)
        self.assertEqual((nothing.p, nothing.s, nothing.low), (0.0, 0.0, 22.0))

    def test_curves(self) -> None:
        panel = supply_curve(read({"drive.supply": PANEL}).design)
        assert panel is not None
        self.assertEqual(list(zip(panel.x, panel.y, strict=True)), [(0.0, 1.4), (17.8, 1.3), (22.0, 0.0)])
        battery = supply_curve(read().design)
        assert battery is not None
        self.assertAlmostEqual(battery.y[0], 0.2 * 25.2 / 0.024)
        raw = changed({"drive.branches": [ENGINE]})
        del raw["drive"]["supply"]
        self.assertIsNone(supply_curve(design.read(raw).design))


class Packs(unittest.TestCase):
    def test_cells_in_a_row_add_up_and_rows_side_by_side_share(self) -> None:
        cells = {"series": 4, "parallel": 2, "cell_voltage": "3.6 V", "cell_resistance": "10 mohm"}
        cells |= {"extra_resistance": "5 mohm", "cell_capacity": "2 A*h"}
        pack = design.read(changed({"drive.supply": {"kind": "battery", "cells": cells}})).design.drive.supply
        assert isinstance(pack, Battery)
        self.assertAlmostEqual(pack.voltage, 14.4)
        self.assertAlmostEqual(pack.internal_resistance, 0.025)
        self.assertAlmostEqual(pack.charge or 0.0, 4.0 * 3600.0)
        whole = {"kind": "battery", "open_circuit_voltage": "12 V", "resistance": "30 mohm"}
        pack = design.read(changed({"drive.supply": whole})).design.drive.supply
        assert isinstance(pack, Battery)
        self.assertEqual(pack.internal_resistance, 0.03)


class Charts(unittest.TestCase):
    def test_one_curve_a_gear_each_to_its_own_end(self) -> None:
        box = {"kind": "speeds", "ratios": [2.0, 1.0], "shift_time": 0.1}
        evaluation = evaluate([read({"drive.stages": [box, changed()["drive"]["stages"][0]]})])
        curve = force_curve(evaluation)
        self.assertAlmostEqual(curve.gears[0].ratio, 2 * curve.gears[1].ratio)
        self.assertAlmostEqual(curve.gears[1].speed[-1], 2 * curve.gears[0].speed[-1])
        for gear in curve.gears:
            self.assertAlmostEqual(gear.drive[-1], 0.0, places=6)
        run = run_curve(evaluation)
        assert run is not None
        self.assertIn(0.0, run.bus_current)
        self.assertEqual(run.distance, sorted(run.distance))

    def test_the_largest_motor_current_is_the_controllers(self) -> None:
        run = run_curve(evaluate([read()]))
        assert run is not None
        self.assertAlmostEqual(max(run.motor_current), 22.0)


class Cautions(unittest.TestCase):
    def paths(self, changes: dict[str, Any], top: float | None = 5.0, stop: float | None = 3.0) -> list[str]:
        return [caution.path for caution in cautions(read(changes).design, top, stop)]

    def test_each_where_it_is_called_for(self) -> None:
        fused = {"drive.supply.current_limit": "60 A"}
        rider = {**fused, "vehicle.payload": "70 kg"}
        bounded = {**fused, "targets": [{"measure": "stopping_distance", "at_most": "2 m"}]}
        self.assertEqual(self.paths(fused), [])
        self.assertEqual(self.paths({}), ["drive.supply.current_limit"])
        self.assertEqual(self.paths(rider), ["vehicle.payload"])
        self.assertEqual(self.paths(fused, 9.0, 20.0), ["vehicle.brake_force"])
        self.assertEqual(self.paths(fused, 3.0, 20.0), [])
        self.assertEqual(self.paths(bounded), ["vehicle.brake_force"])
        self.assertEqual(self.paths(fused, None, None), [])

    def test_none_says_that_it_is_safe(self) -> None:
        for caution in cautions(read({"vehicle.payload": "70 kg"}).design, 12.0, 40.0):
            self.assertNotRegex(caution.text, r"\bsafe\b(?!-)")
