"""What a screen shows: sweep, flow, curves, gauges, targets, messages."""

import copy
import unittest
from typing import Any

from tests.core.designs import GEAR, MOTOR, changed, read
from ydrometer.document import design
from ydrometer.document.template import new_vehicle
from ydrometer.evaluation import targets
from ydrometer.evaluation.curves import force_curve, run_curve
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.flow import flows
from ydrometer.evaluation.messages import messages
from ydrometer.evaluation.result import result
from ydrometer.evaluation.sweep import PathError, diameter_step, variants
from ydrometer.screens.live import look
from ydrometer.screens.sweeps import sweep_of
from ydrometer.screens.swept import readable
from ydrometer.screens.vocabulary import vocabulary

STAGE = "drive.branches[0].stages[0]"
SOURCE = "drive.branches[0].source"


class Sweep(unittest.TestCase):
    def test_each_column_is_the_design_with_that_wheel(self) -> None:
        swept = sweep_of(changed(), STAGE, "driven")
        shown = look(changed())
        self.assertEqual([column.size for column in swept.columns], list(range(50, 63)))
        for column in swept.columns:
            alone = evaluate([read({f"{GEAR}.driven_teeth": int(column.size)})])
            self.assertAlmostEqual(column.ratio or 0.0, alone.value("overall_ratio", 0)[0])
            values = [value.value for value in column.values or []]
            for gauge, value in zip(shown.gauges, values, strict=True):
                self.assertAlmostEqual(value or 0.0, alone.value(gauge.measure, 0) or 0.0, places=9)

    def test_sizes_that_cannot_be_are_empty(self) -> None:
        few = variants(read({f"{GEAR}.driver_teeth": 7}), STAGE, "driver")
        self.assertEqual([teeth for teeth, made in few if made is None], [1, 2, 3, 4])
        ring = variants(read({f"{GEAR}.internal": True, f"{GEAR}.driven_teeth": 17}), STAGE, "driven")
        self.assertEqual([teeth for teeth, made in ring if made is None], [11, 12, 13, 14, 15])

    def test_a_v_pulley_is_tried_in_round_steps_of_its_diameter(self) -> None:
        belt = {"kind": "v_belt", "driver_pitch_diameter": "62 mm", "driven_pitch_diameter": "155 mm"}
        swept = sweep_of(changed({"drive.stages": [belt]}), "drive.stages[0]", "driver")
        self.assertEqual(swept.dimension, "length")
        self.assertEqual([round(1e3 * column.size) for column in swept.columns], list(range(50, 75, 2)))
        self.assertAlmostEqual(swept.columns[6].ratio or 0.0, look(changed({"drive.stages": [belt]})).view.ratio)
        for diameter, step in ((0.02, 0.001), (0.155, 0.01), (0.4, 0.02)):
            self.assertAlmostEqual(diameter_step(diameter), step)

    def test_idlers_change_no_ratio(self) -> None:
        tried = variants(read({f"{GEAR}.idlers": [20, 30]}), STAGE, "idler 2")
        ratios = {evaluate([made]).value("overall_ratio", 0)[0] for _, made in tried if made}
        self.assertEqual(len(ratios), 1)
        self.assertEqual([teeth for teeth, _ in tried][6], 30)

    def test_motors_and_cells_are_counted(self) -> None:
        swept = sweep_of(changed(), SOURCE, "motor")
        self.assertEqual([choice.key for choice in swept.choices], ["count", "cells"])
        self.assertEqual([column.size for column in swept.columns], list(range(1, 9)))
        self.same_as_alone(swept)
        cells = {"series": 3, "cell_voltage": "4.2 V", "cell_resistance": "3 mohm"}
        packed = changed({"drive.supply": {"kind": "battery", "cells": cells}})
        self.same_as_alone(sweep_of(packed, SOURCE, "motor", "cells"), packed)
        whole = sweep_of(changed(), SOURCE, "motor", "cells")
        self.same_as_alone(whole)
        speeds = [column.values[0].value or 0.0 for column in whole.columns if column.values]
        self.assertEqual(speeds, sorted(speeds))

    def test_the_supply_by_itself_in_cells_volts_or_panels(self) -> None:
        panel = {
            "kind": "panel",
            "short_circuit_current": "1.4 A",
            "open_circuit_voltage": "22 V",
            "max_power_voltage": "17.8 V",
            "max_power_current": "1.3 A",
        }
        for supply, keys, sizes in (
            (changed()["drive"]["supply"], ["cells"], None),
            ({"kind": "bench", "voltage": "2.5 V"}, ["voltage"], [1, 2, 2.5, 3, 4, 5, 6, 7, 8]),
            (panel, ["panels in series", "panels side by side"], [1, 2, 3, 4, 5, 6]),
        ):
            base = changed({"drive.supply": supply})
            for key in keys:
                swept = sweep_of(base, "drive.supply", "supply", key)
                self.assertEqual([choice.key for choice in swept.choices], keys)
                self.same_as_alone(swept, base)
                if sizes:
                    self.assertEqual([column.size for column in swept.columns], sizes)

    def test_the_motors_of_the_bin_come_in_the_order_of_their_speed_constants(self) -> None:
        own = changed()["drive"]["branches"][0]["source"]
        parts = [
            {
                "id": f"m{kv}",
                "kind": "motor",
                "name": f"{kv}",
                "controller": {"current_limit": "20 A"},
                "source": {**own, "constants": {**own["constants"], "kv": f"{kv} rpm/V"}},
            }
            for kv in (900, 100, 250)
        ]
        broken: list[dict[str, Any]] = [{"id": "x", "kind": "motor", "source": {"kind": "motor"}}, {"kind": "gear"}, {}]
        same = [{"id": "same", "kind": "motor", "source": own}]
        swept = sweep_of(changed(), SOURCE, "motor", "part", [*parts, *broken, *same])
        self.assertEqual(len(swept.columns), 4)
        self.assertEqual([column.words for column in swept.columns if column.changes], ["100", "250", "900"])
        self.assertEqual([column.size for column in swept.columns], sorted(column.size for column in swept.columns))
        self.same_as_alone(swept)

    def test_the_road_wheel_is_tried_in_what_the_bin_has_and_in_round_sizes(self) -> None:
        parts = [{"id": f"w{d}", "kind": "wheel", "diameter": f"{d} mm"} for d in (80, 125, 150, 200)]
        swept = sweep_of(changed(), "vehicle", "wheel", "", parts)
        self.same_as_alone(swept)
        sizes = [round(1e3 * column.size) for column in swept.columns]
        self.assertEqual(sizes, sorted(sizes))
        self.assertTrue({80, 150, 200} <= set(sizes))
        self.assertEqual(len(sizes), 13)

    def same_as_alone(self, swept: Any, base: dict[str, Any] | None = None) -> None:
        """Each column has the figures of the design with its changes made."""
        self.assertEqual([i for i, column in enumerate(swept.columns) if not column.changes], [swept.here])
        for column in swept.columns:
            made = readable(base or changed(), column.changes)
            assert made is not None and column.values is not None
            alone = evaluate([made])
            for gauge, value in zip(look(base or changed()).gauges, column.values, strict=True):
                self.assertAlmostEqual(value.value or 0.0, alone.value(gauge.measure, 0) or 0.0, places=9)

    def test_no_such_wheel(self) -> None:
        for path, member in ((STAGE, "idler 1"), ("drive.stages[7]", "driver"), ("vehicle", "driver"), (STAGE, "lid")):
            with self.subTest(path, member=member), self.assertRaises(PathError):
                variants(read(), path, member)


MIXED = {
    "drive.branches": [
        {
            "count": 2,
            "source": changed()["drive"]["branches"][0]["source"],
            "stages": [{"kind": "gear", "driver_teeth": 14, "driven_teeth": 60, "module": "1 mm"}],
        },
        {
            "source": {
                "kind": "motor",
                "constants": {"kv": "900 rpm/V", "resistance": "80 mohm", "no_load_current": "0.8 A"},
            },
            "stages": [
                {"kind": "gear", "driver_teeth": 12, "driven_teeth": 36, "module": "1 mm"},
                {"kind": "gear", "driver_teeth": 20, "driven_teeth": 60, "module": "1 mm"},
            ],
        },
    ]
}
"""Two kinds of motor that join on the belt's pulley, the second by one stage more."""


class Flow(unittest.TestCase):
    def test_power_is_lost_just_in_the_stages(self) -> None:
        for changes, sources in (({}, [0]), (MIXED, [0, 3])):
            evaluation = evaluate([read(changes)])
            for flow in flows(evaluation, picked=1.5):
                with self.subTest(flow.moment, sources=sources):
                    entering = sum(shaft.power for shaft in flow.shafts if shaft.shaft in sources)
                    (wheel,) = [shaft for shaft in flow.shafts if shaft.shaft == 2]
                    self.assertAlmostEqual(entering - wheel.power, sum(s.loss for s in flow.stages), places=7)

    def test_at_top_speed_the_wheel_carries_the_resistance(self) -> None:
        for changes in ({}, MIXED):
            evaluation = evaluate([read(changes)])
            top = flows(evaluation)[-1]
            speed = evaluation.value("top_speed", 0)
            wheel = top.shafts[2]
            self.assertAlmostEqual(wheel.speed * 0.0625, speed, places=9)
            against = 0.03 * 14 * 9.80665 + 0.5 * 1.2 * 0.05 * speed**2
            self.assertAlmostEqual(2 * wheel.torque / 0.0625, against, places=5)

    def test_shafts_are_those_of_the_drawing(self) -> None:
        for changes in ({}, MIXED):
            shown = look(changed(changes))
            drawn = sorted(s.index for row in shown.view.line.rows for s in row.shafts)
            for flow in shown.flows:
                self.assertEqual([s.shaft for s in flow.shafts], drawn)
                self.assertEqual(len(flow.currents), len(shown.sources))

    def test_a_picked_speed_is_taken_in_the_gear_of_the_run(self) -> None:
        box = {"drive.stages": [{"kind": "speeds", "ratios": [4, 2], "shift_time": "0.1 s"}]}
        evaluation = evaluate([read(box)])
        top = evaluation.value("top_speed", 0)
        gears = [flows(evaluation, picked=share * top)[-1].gear for share in (0.05, 0.95, 3.0)]
        self.assertEqual(gears, [0, 1, 1])
        self.assertEqual(flows(evaluation, picked=3.0 * top)[-1].vehicle_speed, top)


class Curves(unittest.TestCase):
    def test_they_end_where_the_measures_say(self) -> None:
        evaluation = evaluate([read()])
        force = force_curve(evaluation)
        self.assertAlmostEqual(force.speed[-1], evaluation.value("no_load_speed", 0))
        self.assertAlmostEqual(force.gears[0].drive[-1], 0.0, places=6)
        run = run_curve(evaluation)
        assert run is not None
        self.assertEqual((run.time[0], run.speed[0], run.distance[0]), (0.0, 0.0, 0.0))
        self.assertGreater(run.distance[-1], 25.0)
        self.assertEqual(run.time, sorted(run.time))

    def test_gear_changes_stand_where_the_run_has_them(self) -> None:
        box = {"drive.stages": [{"kind": "speeds", "ratios": [6, 3, 2], "shift_time": "0.1 s"}]}
        run = run_curve(evaluate([read(box)]))
        assert run is not None
        self.assertEqual([change.gear for change in run.changes], [1, 2])
        for change in run.changes:
            self.assertIn(change.time, run.time)
        self.assertEqual(run_curve(evaluate([read()])).changes, [])  # type: ignore[union-attr]

    def test_the_current_limit_holds_up_to_where_the_force_falls(self) -> None:
        (gear,) = force_curve(evaluate([read()])).gears
        held = [f for v, f in zip(gear.speed, gear.drive, strict=True) if v <= gear.limited_to]
        beyond = [f for v, f in zip(gear.speed, gear.drive, strict=True) if v > gear.limited_to]
        self.assertGreater(len(held), 5)
        self.assertAlmostEqual(min(held), max(held), places=6)
        self.assertLess(beyond[1], held[0])
        unlimited = force_curve(evaluate([read({"drive.branches.0.controller": {}})]))
        self.assertEqual(unlimited.gears[0].limited_to, 0.0)

    def test_what_does_not_start_has_no_run(self) -> None:
        evaluation = evaluate([read(), read({"vehicle.rolling_resistance": 1, "vehicle.grip": 2})])
        self.assertIsNone(run_curve(evaluation, 1))
        self.assertIsNotNone(run_curve(evaluation, 0))


class Gauges(unittest.TestCase):
    def test_targets_come_first_then_the_usual(self) -> None:
        shown = look(changed({"targets": [{"measure": "max_grade", "at_least": "18 %"}]}))
        self.assertEqual([g.measure for g in shown.gauges][:3], ["max_grade", "top_speed", "time_to_distance"])
        self.assertEqual([g.target for g in shown.gauges][:2], [0, None])
        self.assertEqual(len(shown.gauges), 6)

    def test_a_target_may_carry_its_own_distance(self) -> None:
        own = [{"measure": "time_to_distance", "at_most": "1.4 s", "distance": "5 m"}]
        shown = look(changed({"targets": own}))
        self.assertEqual(shown.gauges[0].at, 5.0)
        plain = evaluate([read({"run": {"distance": "5 m"}})])
        self.assertAlmostEqual(shown.gauges[0].value or 0.0, plain.value("time_to_distance", 0))

    def test_a_mark_that_no_longer_reads_is_left_out(self) -> None:
        self.assertIsNone(look(changed(), mark={"format": "old"}).mark)

    def test_a_new_vehicle_drives_forwards(self) -> None:
        shown = look(new_vehicle("New"))
        self.assertEqual((shown.state, shown.rotation.forwards), ("ok", True))
        self.assertEqual([m.level for m in shown.messages], ["caution"])


class Targets(unittest.TestCase):
    def judged(self, value: float | None, runs: bool = True, **bound: Any) -> targets.Verdict:
        target = design.read(changed({"targets": [{"measure": "pushing_force", **bound}]})).design.targets[0]
        return targets.judge(target, value, runs=runs)

    def test_margins_and_standings(self) -> None:
        for value, bound, margin, standing in (
            (120.0, {"at_least": "100 N"}, 0.2, "holds"),
            (105.0, {"at_least": "100 N"}, 0.05, "tight"),
            (90.0, {"at_least": "100 N"}, -0.1, "misses"),
            (90.0, {"at_most": "100 N"}, 0.1, "holds"),
            (110.0, {"between": ["100 N", "200 N"]}, 0.1, "holds"),
            (195.0, {"between": ["100 N", "200 N"]}, 0.025, "tight"),
            (210.0, {"between": ["100 N", "200 N"]}, -0.05, "misses"),
        ):
            with self.subTest(value=value, bound=bound):
                verdict = self.judged(value, **bound)
                self.assertAlmostEqual(verdict.margin or 0.0, margin)
                self.assertEqual(verdict.standing, standing)
                self.assertEqual(verdict.met, standing != "misses")

    def test_without_a_value(self) -> None:
        self.assertEqual(self.judged(None, at_least="1 N").standing, "unknown")
        self.assertEqual(self.judged(None, runs=False, at_least="1 N").met, False)

    def test_a_target_of_nothing_has_no_margin(self) -> None:
        self.assertIsNone(self.judged(1.0, at_least="0 N").margin)

    def test_rpm_is_compared_and_shown_in_rpm(self) -> None:
        wheel = [{"measure": "no_load_wheel_rpm", "at_least": "1000 rpm"}]
        (entry,) = result(evaluate([read({"targets": wheel})]))["targets"]
        self.assertEqual(entry["wanted"], "at least 1000 rpm")
        self.assertGreater(entry["value"], 1000.0)
        self.assertAlmostEqual(entry["margin"], entry["value"] / 1000.0 - 1.0)


class Messages(unittest.TestCase):
    def texts(self, changes: dict[str, Any]) -> list[str]:
        return [f"{m.path}: {m.text}" for m in messages(evaluate([read(changes)]))]

    def test_what_deserves_a_word(self) -> None:
        tall = {"vehicle.wheelbase": "420 mm", "vehicle.cg_ahead_of_rear": "60 mm", "vehicle.cg_height": "300 mm"}
        points = {
            "nominal_voltage": "12 V",
            "free_speed": "7400 rpm",
            "free_current": "0.5 A",
            "stall_torque": "0.2 N*m",
            "stall_current": "8.2 A",
        }
        bench = copy.deepcopy({"kind": "motor", "bench_points": points})
        fused = {"drive.supply.current_limit": "80 A", f"{MOTOR}.reversed": True}
        pack = {"kind": "battery", "cells": {"series": 6, "cell_voltage": "4.2 V"}}
        for changes, words in (
            (fused, ""),
            ({}, "drive.supply.current_limit: Put a fuse"),
            ({}, "drive: As drawn the vehicle would run backwards"),
            (MIXED, "drive.branches[1].source: Branch 2 turns against branch 1"),
            ({"drive.stages": [{"kind": "bevel", "driver_teeth": 16, "driven_teeth": 32}]}, "depends on how the bevel"),
            ({"drive.supply": pack}, "Charge lithium packs watched"),
            ({"vehicle.payload": "70 kg"}, "Somebody rides on it"),
            ({"vehicle.brake_force": "12 N"}, "12 m is a usual bound: match the brakes"),
            ({"targets": [{"measure": "stopping_distance", "at_most": "2 m"}]}, "2 m are allowed"),
            (tall, "vehicle.cg_height: The front wheels lift"),
            ({"conditions": {"grade": -1.5}, "vehicle.brake_force": "5 N"}, "The slope beats the brakes"),
            ({"conditions": {"grade": 2.0}}, "drive: It will not start"),
            ({"vehicle.grip": 0.01}, "vehicle.grip: It will not start"),
            ({f"{MOTOR}.max_speed": "9000 rpm"}, "above its 9000 rpm"),
            ({MOTOR: bench}, "The five figures do not agree"),
        ):
            with self.subTest(words):
                found = self.texts(changes)
                self.assertTrue(any(words in text for text in found) if words else not found, found)


class Vocabulary(unittest.TestCase):
    def test_every_targetable_measure_is_there_with_its_kind(self) -> None:
        known = vocabulary()
        kinds = {entry.name for entry in known.dimensions}
        self.assertTrue(all(measure.dimension in kinds for measure in known.measures))
        self.assertIn("time_to_distance", {m.name for m in known.measures if m.run == "distance"})

    def test_each_kind_of_quantity_has_its_own_unit_in_both_systems(self) -> None:
        known = {entry.name: (entry.metric.symbol, entry.inch.symbol) for entry in vocabulary().dimensions}
        self.assertEqual(known["mass"], ("kg", "lb"))
        self.assertEqual(known["length"], ("mm", "in"))
        self.assertEqual({entry.dimension for entry in vocabulary().measures} - set(known), set())
