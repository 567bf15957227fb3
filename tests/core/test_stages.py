"""Every kind of stage: its ratios, what it is assumed to lose, its rotation, and how it is drawn."""

import math
import unittest
from typing import Any

from tests.core.designs import changed
from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.document import design
from ydrometer.document.stages import KINDS, Stage, stage_efficiency
from ydrometer.drawing import draw_line, loops
from ydrometer.drawing.shapes import Box
from ydrometer.geometry import loops as fit

# kind's document, torque ratio, speed ratio, efficiency, rotation
ROWS: tuple[tuple[dict[str, Any], float, float, float, int], ...] = (
    ({"kind": "gear", "driver_teeth": 14, "driven_teeth": 56}, 4.0, 4.0, 0.97, -1),
    ({"kind": "gear", "driver_teeth": 14, "driven_teeth": 56, "idlers": [20]}, 4.0, 4.0, 0.97**2, 1),
    ({"kind": "gear", "driver_teeth": 14, "driven_teeth": 56, "internal": True}, 4.0, 4.0, 0.98, 1),
    ({"kind": "gear", "driver_teeth": 14, "driven_teeth": 56, "efficiency": 0.9}, 4.0, 4.0, 0.9, -1),
    ({"kind": "bevel", "driver_teeth": 15, "driven_teeth": 30}, 2.0, 2.0, 0.95, 1),
    ({"kind": "planetary", "reductions": [4, 3]}, 12.0, 12.0, 0.95**2, 1),
    ({"kind": "planetary", "reductions": [4, 3], "efficiency": 0.8}, 12.0, 12.0, 0.8, 1),
    ({"kind": "cycloidal", "lobes": 11}, 11.0, 11.0, 0.85, -1),
    ({"kind": "strain_wave", "flexible_teeth": 120}, 60.0, 60.0, 0.75, -1),
    ({"kind": "gearbox", "ratio": 5}, 5.0, 5.0, 0.9, 1),
    ({"kind": "worm", "ratio": 20, "efficiency": 0.6}, 20.0, 20.0, 0.6, 1),
    ({"kind": "belt", "driver_teeth": 18, "driven_teeth": 36}, 2.0, 2.0, 0.96, 1),
    ({"kind": "chain", "driver_teeth": 11, "driven_teeth": 33}, 3.0, 3.0, 0.96, 1),
    ({"kind": "v_belt", "driver_pitch_diameter": "60 mm", "driven_pitch_diameter": "150 mm"},
     2.5, 2.5 / 0.985, 0.93, 1),
    ({"kind": "v_belt", "driver_pitch_diameter": 0.1, "driven_pitch_diameter": 0.1, "creep": 0, "crossed": True},
     1.0, 1.0, 0.93, -1),
    ({"kind": "friction", "driver_diameter": "30 mm", "driven_diameter": "210 mm", "press_force": "80 N"},
     7.0, 7.0 / 0.97, 0.92, -1),
    ({"kind": "speeds", "ratios": [3.2, 1.9, 1.2]}, 3.2, 3.2, 0.97, 1),
)  # fmt: skip


def made(raw: dict[str, Any]) -> Stage:
    return design.read(changed({"drive.stages": [raw]})).design.drive.stages[0]


class Kinds(unittest.TestCase):
    def test_ratios_losses_and_rotation(self) -> None:
        for raw, ratio, speed_ratio, efficiency, rotation in ROWS:
            with self.subTest(raw):
                stage = made(raw)
                self.assertAlmostEqual(stage.ratio, ratio)
                self.assertAlmostEqual(stage.speed_ratio, speed_ratio)
                self.assertAlmostEqual(stage_efficiency(stage), efficiency)
                self.assertEqual(stage.rotation, rotation)

    def test_every_kind_is_tried_here(self) -> None:
        self.assertEqual({raw["kind"] for raw, *_ in ROWS}, set(KINDS))

    def test_every_kind_is_drawn_from_shaft_to_shaft(self) -> None:
        for raw, *_ in ROWS:
            with self.subTest(raw):
                line = draw_line(design.read(changed({"drive.stages": [raw]})).design)
                (row,) = line.rows
                self.assertEqual([shaft.index for shaft in row.shafts], [0, 1, 2])
                places = [shaft.x for shaft in row.shafts]
                self.assertEqual(places, sorted(places))
                paths = {wheel.path for wheel in row.wheels} | {box.path for box in row.boxes}
                self.assertIn("drive.stages[0]", paths)
                self.assertEqual(row.shafts[2].rotation, row.shafts[1].rotation * made(raw).rotation)

    def box(self, raw: dict[str, Any]) -> Box:
        (row,) = draw_line(design.read(changed({"drive.stages": [raw]})).design).rows
        (box,) = row.boxes
        return box

    def test_planets_touch_sun_and_ring_and_not_each_other(self) -> None:
        for reduction in (2.5, 4.0, 9.0, 20.0):
            with self.subTest(reduction):
                box = self.box({"kind": "planetary", "reductions": [reduction, 3]})
                self.assertEqual(box.steps, [reduction, 3.0])
                step = [part for part in box.parts if part.step == 0]
                (sun,), (ring,) = ([p for p in step if p.form == form] for form in ("solid", "rim"))
                planets = [p for p in step if p.form == "roller"]
                self.assertAlmostEqual(1.0 + ring.radius / sun.radius, reduction)
                for planet in planets:
                    orbit = math.dist((planet.x, planet.y), (sun.x, sun.y))
                    self.assertAlmostEqual(orbit, sun.radius + planet.radius)
                    self.assertAlmostEqual(orbit + planet.radius, ring.radius)
                    for other in planets:
                        apart = math.dist((planet.x, planet.y), (other.x, other.y))
                        self.assertTrue(other is planet or apart > 2.0 * planet.radius)

    def test_a_step_without_room_for_planets_shows_none(self) -> None:
        self.assertEqual({p.form for p in self.box({"kind": "planetary", "reductions": [2]}).parts}, {"rim", "solid"})

    def test_each_gear_is_a_pair_in_its_ratio_at_one_distance(self) -> None:
        box = self.box({"kind": "speeds", "ratios": [3.2, 1.9, 0.8]})
        self.assertEqual(len(box.parts), 6)
        for ratio, driver, driven in zip(box.steps, box.parts[::2], box.parts[1::2], strict=True):
            self.assertEqual((driver.form, driven.form, driver.x), ("wheel", "wheel", driven.x))
            self.assertAlmostEqual(driven.radius / driver.radius, ratio)
            self.assertAlmostEqual(driver.y - driven.y, driver.radius + driven.radius)
            self.assertLess(abs(driver.x - box.x), 0.5 * box.length)


class CrossedBelt(unittest.TestCase):
    def test_its_length_is_that_of_its_path(self) -> None:
        for r1, r2, distance in ((0.03, 0.08, 0.2), (0.05, 0.05, 0.11), (0.1, 0.02, 0.5)):
            path = loops.crossed_path((0.0, 0.0), r1, (distance, 0.0), r2)
            pieces = [abs(s.radius * s.wrap) if s.wrap else math.dist((s.x1, s.y1), (s.x2, s.y2)) for s in path]
            self.assertAlmostEqual(sum(pieces), fit.crossed_length(r1, r2, distance), places=12)
            self.assertLess(path[1].wrap, 0.0)
            self.assertGreater(path[3].wrap, 0.0)

    def test_its_runs_are_tangents_that_cross(self) -> None:
        first, _, second, _ = loops.crossed_path((0.0, 0.0), 0.03, (0.3, 0.0), 0.06)
        for run, x, y in ((first, first.x1, first.y1), (second, second.x2, second.y2)):
            self.assertAlmostEqual((run.x2 - run.x1) * x + (run.y2 - run.y1) * y, 0.0, places=12)
        self.assertLess(first.y1 * first.y2, 0.0)
        self.assertLess(second.y1 * second.y2, 0.0)

    def test_wheels_that_would_touch(self) -> None:
        with self.assertRaisesRegex(ValueError, "above 0.3 m is needed"):
            fit.crossed_length(0.1, 0.2, 0.25)


class Tables(unittest.TestCase):
    def test_every_kind_of_quantity_has_an_example_it_reads(self) -> None:
        from ydrometer.base.units import parse  # noqa: PLC0415

        for name, row in DIMENSIONS.items():
            for example in row.example.split(" or "):
                with self.subTest(name, example=example):
                    self.assertGreater(parse(example, name), 0.0)
