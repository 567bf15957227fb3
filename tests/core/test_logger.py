"""Loggers' tables: columns guessed, faulty rows told, runs found where they were."""

from __future__ import annotations

import io
import math
from typing import Any
from unittest import TestCase

import numpy as np

from tests.core.designs import PLAIN, changed
from ydrometer.base.errors import DocumentError
from ydrometer.document import design
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.instruments.columns import LogLayout, guess
from ydrometer.instruments.journeys import MOST_CURVES, MOST_POINTS, _top, journeys, resting_voltage, runs_of
from ydrometer.instruments.table import Table, read_table
from ydrometer.motion import trace
from ydrometer.screens.logged_file import file_shown, layout_of
from ydrometer.trials.runs_file import read_run


def meanings(layout: LogLayout) -> list[tuple[str, str]]:
    return [(column.meaning, column.unit) for column in layout.columns]


class Columns(TestCase):
    def test_by_their_names_and_units(self) -> None:
        head = (
            "time [ms];speed (km/h);wheel rpm;Batt_V;I_A;odo [m];notes\n"
            + "0;1,5;20;25,1;4;0,0;1\n20;1,6;21;25,0;5;0,1;1\n"
        )
        layout = guess(head)
        self.assertEqual((layout.separator, layout.decimal, layout.skip), (";", ",", 1))
        self.assertEqual(meanings(layout)[:3], [("time", "ms"), ("speed", "km/h"), ("wheel turns", "rpm")])
        self.assertEqual(meanings(layout)[5:], [("distance", "m"), ("", "")])

    def test_units_stand_wherever_loggers_write_them(self) -> None:
        for name, wanted in (
            ("speed_km/h", ("speed", "km/h")),
            ("v (km/h)", ("speed", "km/h")),
            ("v [V]", ("voltage", "V")),
            ("Geschwindigkeit in km/h", ("speed", "km/h")),
            ("speed mph", ("speed", "mph")),
            ("Strom in mA", ("current", "mA")),
            ("Spannung", ("voltage", "V")),
            ("channel 3 [A]", ("current", "A")),
            ("Drehzahl Rad in U/min", ("wheel turns", "rpm")),
            ("temp_C", ("temperature", "degC")),
            ("erpm", ("", "")),
            ("current_motor", ("", "")),
            ("note", ("", "")),
        ):
            with self.subTest(name):
                self.assertEqual(meanings(guess(f"time [s];{name}\n0;1\n0.1;2\n0.2;2\n0.3;1\n"))[1], wanted)

    def test_by_their_values_where_no_name_helps(self) -> None:
        layout = guess("Logger 7, firmware 2\n\n0.00\t3\n0.02\t4\n0.04\t2\n0.06\t8\n")
        self.assertEqual((layout.separator, layout.skip), ("\t", 1))
        self.assertEqual(meanings(layout), [("time", "s"), ("", "")])
        self.assertEqual(meanings(guess("t,v\n0,1\n20,2\n40,3\n"))[0], ("time", "ms"))

    def test_what_is_no_table_is_refused(self) -> None:
        with self.assertRaisesRegex(DocumentError, "no row of numbers"):
            guess("dear diary\ntoday it rained\n")

    def test_a_layout_of_the_page_is_read_with_care(self) -> None:
        with self.assertRaises(DocumentError) as caught:
            layout_of(
                {
                    "separator": "#",
                    "decimal": "!",
                    "skip": -1,
                    "columns": [{"meaning": "weather"}, {"meaning": "time", "unit": "V"}, 3],
                }
            )
        paths = {fault.path for fault in caught.exception.faults}
        self.assertEqual(paths, {"separator", "decimal", "skip", "columns[0].meaning", "columns[1].unit"})


class Reading(TestCase):
    def read(self, text: str) -> Table:
        return read_table(io.StringIO(text), guess(text))

    def test_in_any_writing_the_same(self) -> None:
        plain = "time,speed [km/h],amp\n" + "".join(f"{k / 10:.1f},{3.6 * k:.1f},{k}\n" for k in range(50))
        german = plain.replace(",", ";").replace(".", ",")
        for text in (plain, german, plain.replace(",", "\t"), plain.replace("\n", "\r\n")):
            table = self.read(text)
            with self.subTest(text[:40]):
                np.testing.assert_allclose(table.time, np.arange(50) / 10.0)
                np.testing.assert_allclose(table.columns["speed"], np.arange(50.0), rtol=1e-6)

    def test_faulty_rows_are_counted_and_told_by_line_and_empty_cells_are_none(self) -> None:
        rows = [f"{k},{k},{k}" for k in range(30)]
        rows[4], rows[6], rows[8], rows[9] = "4,four,4", "6", ",8,8", "9,,9"
        table = self.read("time [s],speed,amp\n" + "\n".join(rows) + "\n\n")
        self.assertEqual((table.faulty, len(table.time)), (3, 27))
        self.assertEqual([fault.path for fault in table.faults], ["line 6", "line 8", "line 10"])
        self.assertTrue(math.isnan(table.columns["speed"][table.time == 9.0][0]))

    def test_it_can_be_ended_on_the_way(self) -> None:
        class EndedError(Exception):
            pass

        def going(rows: int) -> None:
            raise EndedError

        text = "time,speed\n0,1\n1,2\n2,3\n"
        with self.assertRaises(EndedError):
            read_table(io.StringIO(text), guess(text), going)


class Journeys(TestCase):
    """A driven afternoon of a design whose run is known."""

    def driven(self, rate: int = 200, runs: int = 2) -> tuple[str, Any]:
        document = design.read(PLAIN)
        evaluation = evaluate([document])
        group, row = evaluation.group(0)
        points = trace.points(group.batch, row)
        lines = ["time,speed,amp,volt"]
        for k in range(rate * 12 * runs):
            at = k / rate % 12.0 - 3.0
            speed = (
                0.0
                if at < 0.0
                else np.interp(at, points.time, points.speed)
                if at < 7.0
                else max(0.0, 9.0 - 6.0 * (at - 7.0))
            )
            amp = np.interp(at, points.time, points.bus_current) if 0.0 <= at < 7.0 else 0.0
            lines.append(f"{k / rate},{speed:.4f},{amp:.3f},{25.2 - 0.024 * amp:.3f}")
        return "\n".join(lines), evaluation

    def test_the_largest_current_is_a_kind_of_its_own_and_a_sensor_has_its_zero(self) -> None:
        text, evaluation = self.driven()
        table = read_table(io.StringIO(text), guess(text))
        off = Table(table.time, {**table.columns, "current": table.columns["current"] + np.float32(1.5)}, 0, 0)
        for each in (table, off):
            readings = {about["kind"]: value for about, value in journeys(each, design.read(PLAIN).design)[0].readings}
            self.assertNotIn("supply_current", readings)
            self.assertNotIn("supply_voltage_under_load", readings)
            most = evaluation.value("peak_bus_current", 0)
            self.assertAlmostEqual(readings["largest_current"] / (most or 1.0), 1.0, delta=0.02)

    def test_a_throttle_closed_before_the_line_gives_no_time(self) -> None:
        text, _ = self.driven()
        table = read_table(io.StringIO(text), guess(text))
        far = design.read(changed({"run.distance": "62 m"}, PLAIN)).design
        (driven, _) = journeys(table, far)
        self.assertGreater(driven.distance, 62.0)
        self.assertNotIn("distance_time", {about["kind"] for about, _ in driven.readings})
        self.assertTrue(any("throttle closed after 7" in remark for remark in driven.remarks), driven.remarks)

    def test_readings_agree_with_what_was_driven(self) -> None:
        text, evaluation = self.driven()
        table = read_table(io.StringIO(text), guess(text))
        driven = journeys(table, design.read(PLAIN).design)
        self.assertEqual(len(driven), 2)
        readings = {about["kind"]: value for about, value in driven[0].readings}
        for kind, measure in (
            ("distance_time", "time_to_distance"),
            ("speed_time", "time_to_speed"),
            ("top_speed", "top_speed"),
        ):
            with self.subTest(kind):
                self.assertAlmostEqual(readings[kind] / evaluation.value(measure, 0), 1.0, delta=0.01)
        self.assertAlmostEqual(driven[1].begun, 15.0, delta=0.05)
        resting = resting_voltage(table, driven)
        self.assertAlmostEqual(resting or 0.0, 25.2, places=3)
        for run in runs_of(driven, resting):
            self.assertEqual(len(read_run(run, PLAIN).readings), 2)

    def test_from_whatever_tells_how_fast_it_was(self) -> None:
        text, _ = self.driven(rate=100, runs=1)
        table = read_table(io.StringIO(text), guess(text))
        own = design.read(PLAIN).design
        speed = table.columns["speed"]
        others = {
            "wheel turns": speed / np.float32(own.vehicle.wheel_diameter / 2.0),
            "distance": (np.cumsum(speed) * 0.01).astype(np.float32),
        }
        lasted = journeys(table, own)[0].lasted
        for key, column in others.items():
            (driven,) = journeys(Table(table.time, {key: column}, 0, 0), own)
            with self.subTest(key):
                self.assertAlmostEqual(driven.lasted, lasted, delta=0.1)
        self.assertEqual(journeys(Table(table.time, {"current": speed}, 0, 0), own), [])

    def test_what_the_station_is_shown(self) -> None:
        text, _ = self.driven(rate=400, runs=2)
        shown = file_shown(io.StringIO(text), guess(text), changed({"run.distance": "10 m"}), lambda rows: None)
        self.assertEqual((shown.count, len(shown.journeys), shown.faulty), (2, 2, 0))
        self.assertLessEqual(max(len(journey.curve) for journey in shown.journeys), MOST_POINTS)
        self.assertGreater(len(shown.predicted), 10)
        self.assertGreater(MOST_CURVES, 2)


class TopSpeed(TestCase):
    def top(self, kept: float) -> list[float]:
        """Of ten seconds at 2 m/s, and so long at 4 m/s."""
        t = np.arange(0.0, 10.0, 0.01)
        v = np.where(t < 10.0 - kept, 2.0, 4.0)
        return [value for _, value in _top(t, v)]

    def test_is_one_where_it_was_kept_for_a_while(self) -> None:
        self.assertEqual(self.top(2.0), [4.0])
        self.assertEqual(self.top(1.0), [])
