"""Comparing, turning down, and the table of pairs: each figure against the design evaluated by itself."""

import copy
import json
import math
import unittest
from pathlib import Path
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.designs import GEAR, PLAIN, REMOVED, changed, documents, read
from ydrometer.base.errors import DocumentError
from ydrometer.base.tables.measures import OF_LOADS
from ydrometer.document import design
from ydrometer.document.changes import changes, summary
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.loads.summary import in_short
from ydrometer.questions.compare import compare
from ydrometer.questions.duty_limit import duty_limit
from ydrometer.questions.grid import grid

STAGE = "drive.branches[0].stages[0]"
DEMO = Path(__file__).parents[2] / "server" / "demo" / "vehicles"


class Changes(unittest.TestCase):
    def told(self, edits: dict[str, Any]) -> list[str]:
        return changes(PLAIN, changed(edits))

    def test_where_a_drive_is_split_makes_no_difference(self) -> None:
        stages = [*PLAIN["drive"]["branches"][0]["stages"], *PLAIN["drive"]["stages"]]
        self.assertEqual(self.told({"drive.branches.0.stages": stages, "drive.stages": []}), [])

    def test_builders_words(self) -> None:
        chain = {"kind": "chain", "driver_teeth": 11, "driven_teeth": 22}
        belt = PLAIN["drive"]["stages"][0]
        for edits, words in (
            ({f"{GEAR}.driver_teeth": 16}, ["driver gear 15 → 16"]),
            ({"drive.stages.0.driven_teeth": 32}, ["driven pulley 36 → 32"]),
            ({"drive.stages.0.pitch": "3 mm"}, ["pitch of the toothed belt 5 mm → 3 mm"]),
            ({f"{GEAR}.idlers": [20]}, ["idlers of the gears given"]),
            ({"vehicle.mass": {"value": "13 kg", "origin": "measured"}}, ["mass 14 kg → 13 kg"]),
            ({"drive.units": 1}, ["drive units 2 → 1"]),
            ({"drive.stages": [belt, chain]}, ["chain added"]),
            ({"drive.stages": [chain, belt]}, ["chain added"]),
            ({"drive.stages": []}, ["toothed belt taken out"]),
            ({"drive.stages": [chain]}, ["chain instead of toothed belt"]),
            ({"vehicle.grip": REMOVED}, ["grip no longer given"]),
            ({"targets": PLAIN["targets"][:1]}, ["target for pushing force taken out"]),
            ({"drive.branches": PLAIN["drive"]["branches"] * 2}, ["branch 2 added"]),
            ({"drive.supply.resistance": "30 mohm"}, ["resistance of the supply 24 mohm → 30 mohm"]),
            ({}, []),
        ):
            with self.subTest(words):
                self.assertEqual(self.told(edits), words)

    def test_an_exchange_is_told_as_such(self) -> None:
        chain = {"kind": "chain", "driver_teeth": 11, "driven_teeth": 22}
        before = changed({"drive.stages": [*PLAIN["drive"]["stages"], chain]})
        after = changed({"drive.stages": [chain, *PLAIN["drive"]["stages"]]})
        self.assertEqual(changes(before, after), ["stages in another order"])

    def test_one_line_counts_what_is_too_much(self) -> None:
        edits = {f"vehicle.{key}": 0.5 for key in ("mass", "grip", "drag_area", "rolling_resistance", "cg_height")}
        line = summary(PLAIN, changed({**edits, f"{GEAR}.driver_teeth": 16, "drive.units": 1, "name": "Another one"}))
        self.assertTrue(line.startswith("driver gear 15 → 16, "))
        self.assertRegex(line, r"and \d more$")

    @settings(max_examples=60, deadline=None)
    @given(
        one=st.recursive(
            st.none() | st.integers() | st.text(max_size=5), lambda i: st.lists(i) | st.dictionaries(st.text(), i)
        )
    )
    def test_anything_can_be_told_from_anything(self, one: Any) -> None:
        for key in ("drive", "vehicle", "targets", "name"):
            raw = {**copy.deepcopy(PLAIN), key: one}
            self.assertLess(len(summary(PLAIN, raw) + summary(raw, PLAIN)), 2000)


class Comparing(unittest.TestCase):
    def test_each_column_is_the_design_by_itself_asked_for_the_first_one_s_targets(self) -> None:
        others = [PLAIN, changed({f"{GEAR}.driver_teeth": 18, "run": {"distance": "3 m"}, "targets": []})]
        found = compare(others)
        alone = evaluate([read({f"{GEAR}.driver_teeth": 18})])
        lines = in_short(alone)
        for row, value in zip(found.rows, found.columns[1].values, strict=True):
            with self.subTest(row.measure):
                wanted = lines.known.get(row.measure) if row.measure in OF_LOADS else alone.value(row.measure, 0)
                self.assertAlmostEqual(value.value or 0.0, wanted or 0.0)
        self.assertEqual(found.rows[0].wanted, "at least 8 m/s")
        self.assertEqual(found.columns[0].changes, [])
        self.assertIn("driver gear 15 → 18", found.columns[1].changes)

    def test_the_demo_s_vehicles_go_together(self) -> None:
        raws = [json.loads(file.read_text()) for file in sorted(DEMO.glob("*/1.json"))][:4]
        self.assertEqual([column.name for column in compare(raws).columns], [raw["name"] for raw in raws])

    def test_faults_carry_the_number_of_their_design(self) -> None:
        with self.assertRaises(DocumentError) as caught:
            compare([PLAIN, changed({"vehicle.mass": "-1 kg"})])
        self.assertEqual(caught.exception.faults[0].path, "documents[1].vehicle.mass")
        for many in ([], [PLAIN] * 6):
            with self.assertRaises(DocumentError):
                compare(many)


class DutyLimit(unittest.TestCase):
    def test_both_ways_reach_the_wanted_speed(self) -> None:
        raw = changed({"targets": [{"measure": "top_speed", "between": ["4 m/s", "6 m/s"]}]})
        found = duty_limit(design.read(raw))
        self.assertEqual(found.wanted, 6.0)
        present, capped, geared = found.ways
        for way in (capped, geared):
            self.assertAlmostEqual(way.top_speed / 6.0, 1.0, places=3)
        self.assertLess(capped.duty, 1.0)
        self.assertEqual(capped.ratio, present.ratio)
        self.assertGreater(geared.ratio, present.ratio)
        # Geared for it, the same motor pushes harder; turned down, it pushes no more than before.
        self.assertGreater(geared.pushing_force, present.pushing_force)
        self.assertLessEqual(capped.pushing_force, present.pushing_force * (1 + 1e-9))
        self.assertRegex(geared.note, r"Nearest with one wheel: \w+ \d+ → \d+ teeth")

    def test_a_capped_duty_is_the_model_s_duty(self) -> None:
        """At standstill, without a limit: I = d·Voc/(R + d²·Rb·N), and the supply gives d·I of each motor."""
        raw = changed(
            {"targets": [{"measure": "top_speed", "at_most": "5 m/s"}], "drive.branches.0.controller": {}},
        )
        capped = duty_limit(design.read(raw)).ways[1]
        d, rb, r, number = capped.duty, 0.024, 0.038, 2
        current = d * 25.2 / (r + d * d * rb * number)
        self.assertAlmostEqual(capped.motor_current or 0.0, current, places=6)
        self.assertAlmostEqual(capped.bus_current or 0.0, number * d * current, places=6)

    def test_a_panel_and_a_bench_can_be_turned_down(self) -> None:
        panel = {
            "kind": "panel",
            "short_circuit_current": "9 A",
            "open_circuit_voltage": "25 V",
            "max_power_voltage": "20 V",
            "max_power_current": "8 A",
        }
        for supply in (panel, {"kind": "bench", "voltage": "24 V"}):
            raw = changed({"drive.supply": supply, "targets": [{"measure": "top_speed", "at_most": "3 m/s"}]})
            ways = duty_limit(design.read(raw)).ways
            self.assertAlmostEqual(ways[1].top_speed, 3.0, places=3)

    def test_what_drives_by_an_engine_is_not_turned_down(self) -> None:
        band = [{"measure": "top_speed", "at_most": "3 m/s"}]
        words = [way.words for way in duty_limit(read({"targets": band})).ways]
        file = Path(__file__).parent / "cases" / "05-engine-with-clutch.json"
        engine = json.loads(file.read_text())
        by_engine = [way.words for way in duty_limit(design.read({**engine, "targets": band})).ways]
        self.assertEqual(len(words), 3)
        self.assertEqual(by_engine, [words[0], words[2]])

    def test_the_speed_is_the_edge_below_the_present_or_the_one_asked_for(self) -> None:
        band = [{"measure": "top_speed", "between": ["6 m/s", "60 m/s"]}]
        self.assertEqual(duty_limit(read({"targets": band})).wanted, 6.0)
        asked = duty_limit(read({"targets": band}), 5.0)
        self.assertEqual(asked.wanted, 5.0)
        self.assertAlmostEqual(asked.ways[2].top_speed, 5.0, places=3)

    def test_where_there_is_nothing_to_compare(self) -> None:
        self.assertIsNone(duty_limit(read({"targets": []})).wanted)
        slow = duty_limit(read({"targets": [{"measure": "top_speed", "at_least": "40 m/s"}]}))
        self.assertEqual((len(slow.ways), bool(slow.why)), (1, True))

    def test_an_engine_is_only_geared(self) -> None:
        raw = json.loads((DEMO / "4-turnstone" / "1.json").read_text())
        raw["targets"] = [{"measure": "top_speed", "at_most": "4 m/s"}]
        found = duty_limit(design.read(raw))
        self.assertEqual([way.words for way in found.ways], ["As it is", "Geared for it"])


class Pairs(unittest.TestCase):
    def test_each_cell_is_the_design_with_that_pair(self) -> None:
        found = grid(read(), STAGE, [12, 15, 18], [48, 56])
        self.assertEqual(found.present, (15, 56))
        for z, row in zip(found.drivers, found.cells, strict=True):
            for y, cell in zip(found.drivens, row, strict=True):
                alone = evaluate([read({f"{GEAR}.driver_teeth": z, f"{GEAR}.driven_teeth": y})])
                self.assertAlmostEqual(cell.ratio or 0.0, 2.0 * y / z)
                self.assertAlmostEqual(cell.per_turn or 0.0, math.pi * 0.125 / (2.0 * y / z))
                self.assertAlmostEqual(cell.top_speed or 0.0, alone.value("top_speed", 0))
                self.assertAlmostEqual(cell.time or 0.0, alone.value("time_to_distance", 0))
                stands = {entry.verdict.standing for entry in alone.target_results(0)}
                self.assertEqual(cell.standing == "misses", "misses" in stands)

    def test_a_pair_that_cannot_be_is_empty(self) -> None:
        ring = read({f"{GEAR}.internal": True})
        (row,) = grid(ring, STAGE, [20], [18, 60]).cells
        self.assertIsNone(row[0].ratio)
        self.assertIsNotNone(row[1].ratio)

    def test_what_is_refused(self) -> None:
        for path, drivers, drivens in (
            (STAGE, [], [20]),
            (STAGE, [2], [20]),
            ("drive.stages[5]", [12], [20]),
            (STAGE, [12] * 41, [20]),
        ):
            with self.subTest(path), self.assertRaises(DocumentError):
                grid(read(), path, drivers, drivens)

    @settings(max_examples=10, deadline=None)
    @given(raw=documents())
    def test_drawn_designs(self, raw: dict[str, Any]) -> None:
        made = design.read(raw)
        stage = raw["drive"]["branches"][0].get("stages", [{}])[0] if raw["drive"]["branches"][0].get("stages") else {}
        if stage.get("kind") != "gear":
            return
        cell = grid(made, STAGE, [stage["driver_teeth"]], [stage["driven_teeth"]]).cells[0][0]
        self.assertEqual(cell.top_speed, evaluate([made]).value("top_speed", 0))
