"""The question turned round: edges against the model itself, ranges, whole numbers, and the nearest real parts."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from tests.core.designs import PLAIN, changed
from ydrometer.base.errors import DocumentError
from ydrometer.document import design
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.parts import bulk
from ydrometer.questions.inverse import Inverse, inverse, unknowns

TRUNK = "drive.stages[0]"


def measured(raw: dict[str, Any], name: str) -> float:
    value: float = evaluate([design.read(raw)]).value(name, 0)
    return value


def ask(key: str, path: str = "", parts: Any = (), raw: Any = PLAIN, **target: Any) -> Inverse:
    return inverse(raw, key, path, target, parts)


def bin_of(kind: str, text: str) -> list[dict[str, Any]]:
    parts, faults = bulk.read_lines(kind, text)
    assert not faults
    return [{**part, "id": f"{kind}{i}"} for i, part in enumerate(parts)]


class Edges(TestCase):
    def test_a_wheel_at_the_edge_gives_exactly_what_was_asked(self) -> None:
        answer = ask("wheel_diameter", measure="time_to_distance", at_most="3.4 s")
        self.assertEqual(len(answer.ranges), 1)
        edges = [edge for edge in (answer.ranges[0].low, answer.ranges[0].high) if edge is not None]
        self.assertTrue(edges)
        for edge in edges:
            self.assertAlmostEqual(measured(changed({"vehicle.wheel_diameter": edge}), "time_to_distance"), 3.4, 6)

    def test_a_reduction_at_the_edge_gives_exactly_what_was_asked(self) -> None:
        answer = ask("reduction", TRUNK, measure="top_speed", at_least="5 m/s")
        (one,) = answer.ranges
        self.assertIsNotNone(one.high)
        losses = design.read(PLAIN).design.drive.stages[0].default_efficiency
        box = {"kind": "gearbox", "ratio": one.high, "efficiency": losses}
        self.assertAlmostEqual(measured(changed({"drive.stages": [box]}), "top_speed"), 5.0, 6)

    def test_a_band_has_two_edges_and_what_cannot_be_has_none(self) -> None:
        band = ask("reduction", TRUNK, measure="top_speed", between=["4 m/s", "5 m/s"])
        self.assertEqual([None not in (r.low, r.high) for r in band.ranges], [True])
        self.assertEqual(ask("mass", measure="top_speed", at_least="500 m/s").ranges, [])
        self.assertEqual(ask("mass", measure="top_speed", at_least="0.001 m/s").ranges[0].low, None)

    def test_the_least_number_of_motors(self) -> None:
        answer = ask("count", measure="pushing_force", at_least="100 N")
        self.assertTrue(answer.whole)
        least = int(answer.ranges[0].low or 0)
        for count in (least - 1, least):
            if count:
                force = measured(changed({"drive.branches.0.count": count}), "pushing_force")
                self.assertEqual(force >= 100.0, count == least)

    def test_what_a_design_does_not_have_is_refused(self) -> None:
        for key, path in (("reduction", "drive.stages[9]"), ("cells", ""), ("colour", "")):
            with self.assertRaises(DocumentError):
                ask(key, path, measure="top_speed", at_least="5 m/s")
        with self.assertRaises(DocumentError):
            ask("mass", measure="top_speed", at_least="5 kg")
        self.assertIn("mass", [u.key for u in unknowns(design.read(PLAIN))])


class RealParts(TestCase):
    def test_pairs_of_the_bin_stand_on_both_sides_of_the_edge(self) -> None:
        pulleys = bin_of("pulley", "pitch 5: 12 20 30 36 60 72")
        answer = ask("reduction", TRUNK, pulleys, measure="top_speed", at_least="5 m/s")
        edge = answer.ranges[0].high or 0.0
        self.assertEqual([(r.side, r.unknown <= edge) for r in answer.real], [("below", True), ("above", False)])
        for real in answer.real:
            teeth = {path.removeprefix(TRUNK + "."): value for path, value in real.changes.items()}
            raw = changed({f"drive.stages.0.{key}": value for key, value in teeth.items()})
            self.assertAlmostEqual(measured(raw, "top_speed"), real.value or 0.0, 9)
            self.assertEqual(real.met, (real.value or 0.0) >= 5.0)

    def test_without_a_bin_one_wheel_is_kept(self) -> None:
        answer = ask("reduction", TRUNK, bin_of("pulley", "pitch 3: 18 20"), measure="top_speed", at_least="5 m/s")
        stage = PLAIN["drive"]["stages"][0]
        for real in answer.real:
            kept = [real.changes[f"{TRUNK}.{key}"] == stage[key] for key in ("driver_teeth", "driven_teeth")]
            self.assertTrue(any(kept))

    def test_wheels_of_the_bin(self) -> None:
        answer = ask("wheel_diameter", "", bin_of("wheel", "20 100 300 900 mm"), measure="max_grade", at_least="20 %")
        self.assertEqual({r.side for r in answer.real}, {"below", "above"})
        self.assertTrue(all(r.changes == {"vehicle.wheel_diameter": f"{r.unknown * 1e3:.0f} mm"} for r in answer.real))
