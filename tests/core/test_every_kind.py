"""Each kind of stage is asked everything that a stage is asked: what one kind forgets to say shows here."""

from __future__ import annotations

import copy
import unittest
from collections.abc import Iterator
from typing import Any

import jsonschema

from tests.core import test_working
from tests.core.designs import PLAIN, changed
from ydrometer.base.tables import uncertainties as table
from ydrometer.document import design
from ydrometer.document.changes import changes
from ydrometer.document.stages import KINDS, Stage, power_lost
from ydrometer.document.stages.plane import Loop
from ydrometer.drawing import draw_line
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.flow import flows
from ydrometer.evaluation.messages import messages
from ydrometer.evaluation.result import result
from ydrometer.evaluation.sweep import variants
from ydrometer.files.fit_report import report
from ydrometer.parts.fitting import fits
from ydrometer.parts.kinds import KINDS as PARTS
from ydrometer.questions.inverse import inverse, unknowns
from ydrometer.screens.gauge_bands import uncertainties
from ydrometer.screens.live import Wish, look
from ydrometer.screens.mounted import mounted
from ydrometer.screens.sweeps import sweep_of
from ydrometer.screens.vocabulary import vocabulary
from ydrometer.search import answer, read_request
from ydrometer.working import working

PATH = "drive.stages[0]"
PLATE = {"plate": {"hole_pitch": "12 mm", "across": 40, "up": 12}}


def raw(kind: str, **more: Any) -> dict[str, Any]:
    """The plain design with one stage of a kind, as it is added, before the wheels."""
    return changed({"drive.stages": [{"kind": kind, **copy.deepcopy(dict(KINDS[kind].start))}], **more})


def each() -> Iterator[tuple[str, dict[str, Any], Stage]]:
    """Every kind, with a design and its stage."""
    for kind in KINDS:
        yield kind, raw(kind), design.read(raw(kind)).design.drive.stages[0]


class EveryKind(unittest.TestCase):
    def test_is_evaluated_and_its_overall_ratio_is_that_of_its_working(self) -> None:
        for kind, document, stage in each():
            with self.subTest(kind):
                read = design.read(document)
                self.assertEqual(result(evaluate([read]))["state"], "ok")
                made = working(read, "overall_ratio")
                self.assertAlmostEqual(made.value or 0.0, 56 / 15 * stage.speed_ratio, 9)
                self.assertAlmostEqual(made.steps[-1].value, 56 / 15 * stage.speed_ratio, 9)

    def test_every_measure_follows_from_its_working(self) -> None:
        for kind, document, _ in each():
            with self.subTest(kind):
                test_working.Recomputing().check(document)

    def test_power_that_goes_in_comes_out_or_is_lost(self) -> None:
        for kind, document, stage in each():
            with self.subTest(kind):
                evaluation = evaluate([design.read(document)])
                driving = next(flow for flow in flows(evaluation) if flow.moment == "top speed")
                entry = driving.stages[-1]
                powers = {shaft.shaft: shaft.power for shaft in driving.shafts}
                self.assertAlmostEqual(entry.loss / powers[entry.driver_shaft], entry.lost, 9)
                self.assertAlmostEqual(entry.lost, power_lost(stage), 12)
                self.assertEqual(messages(evaluation), messages(evaluation))

    def test_is_doubted_in_words(self) -> None:
        for kind, document, _ in each():
            with self.subTest(kind):
                self.assertIn("Measure ", uncertainties(document, assumed=True).first)

    def test_what_is_assumed_of_it_has_its_own_uncertainty(self) -> None:
        known = {*table.OF_THE_VALUE, *table.OF_THE_LOSS}
        for kind, document, _ in each():
            with self.subTest(kind):
                values = design.read(document).values
                assumed = [path for path in values if path.startswith(PATH) and values[path].origin == "assumed"]
                self.assertLessEqual({path.rpartition(".")[2] for path in assumed}, known)

    def test_every_wheel_is_swept_and_takes_its_sizes(self) -> None:
        for kind, document, stage in each():
            for member in stage.members:
                with self.subTest(kind, member=member.name):
                    made = variants(design.read(document), PATH, member.name)
                    self.assertEqual(made[6][0], member.measure)
                    smaller = made[5][1]
                    assert smaller is not None
                    found = smaller.design.drive.stages[0].member(member.name)
                    self.assertEqual(found and found.measure, made[5][0])
                    self.assertEqual(len(sweep_of(document, PATH, member.name).columns), 13)

    def test_is_drawn_from_shaft_to_shaft(self) -> None:
        for kind, document, stage in each():
            with self.subTest(kind):
                (row,) = draw_line(design.read(document).design).rows
                drawn = [wheel for wheel in row.wheels if wheel.path == PATH]
                self.assertEqual([wheel.member for wheel in drawn], [member.name for member in stage.members])
                self.assertTrue(drawn or [box for box in row.boxes if box.path == PATH])
                for wheel in drawn:
                    self.assertEqual(wheel.place.startswith(PATH), True)

    def test_stands_on_a_plate_last_before_the_wheel_and_first(self) -> None:
        for kind, document, _ in each():
            for stages in (document["drive"]["stages"], [*document["drive"]["stages"], *PLAIN["drive"]["stages"]]):
                with self.subTest(kind, stages=len(stages)):
                    read = design.read({**document, "drive": {**document["drive"], "stages": stages}, "fit": PLATE})
                    report(read)
                    mounted(read)
                    self.assertIsNotNone(look({**document, "fit": PLATE}).clashes)

    def test_finds_its_parts_in_a_bin(self) -> None:
        for kind, _, stage in each():
            with self.subTest(kind):
                self.assertEqual(fits(stage, []), [])
                if stage.form and stage.form.part:
                    self.assertIn(stage.form.part, PARTS)
                if stage.whole_part:
                    self.assertIn(stage.whole_part, PARTS)
                if isinstance(stage.in_plane, Loop):
                    self.assertIn(stage.in_plane.part, PARTS)

    def test_is_searched_as_it_stands(self) -> None:
        for kind, document, _ in each():
            with self.subTest(kind):
                layout = {"stages": [{"kind": "fixed", "stage": document["drive"]["stages"][0]}]}
                bare = changed({"drive.branches.0.stages": [], "drive.stages": []}, document)
                request = {"format": "ydrometer-search", "version": 1, "design": bare, "parts": [], "layouts": [layout]}
                found = answer(read_request(request), processes=1)
                self.assertEqual(found["combinations"], 1)
                ratio = found["options"][0]["measures"]["overall_ratio"]["value"][0]["value"]
                self.assertAlmostEqual(ratio, design.read(document).design.drive.stages[0].speed_ratio, 9)

    def test_is_asked_the_question_turned_round(self) -> None:
        for kind, document, stage in each():
            with self.subTest(kind):
                asked = [unknown.path for unknown in unknowns(design.read(document)) if unknown.key == "reduction"]
                self.assertEqual(PATH in asked, not stage.several_speeds)
                if PATH in asked:
                    target = {"measure": "top_speed", "at_least": "0.1 m/s"}
                    self.assertTrue(inverse(document, "reduction", PATH, target).present_met)

    def test_its_changes_are_told_in_words(self) -> None:
        for kind, document, stage in each():
            with self.subTest(kind):
                without = changed({"drive.stages": []}, document)
                self.assertEqual(changes(without, document), [f"{stage.noun} added"])
                for member in stage.members:
                    other = changed({f"drive.stages.0.{member.key}": 77}, document)
                    self.assertTrue(changes(document, other)[0].startswith(f"{member.name} {member.form.noun} "))

    def test_is_looked_at(self) -> None:
        for kind, document, stage in each():
            with self.subTest(kind):
                selected = (PATH, stage.members[0].name if stage.members else "box")
                shown = look(document, document, Wish(selected=selected, told=3.0))
                self.assertIn(PATH, [view.path for view in shown.ratios])
                self.assertEqual(bool(shown.told), not stage.several_speeds)

    def test_is_in_the_schema_and_in_the_vocabulary_of_the_page(self) -> None:
        schema = design.schema()
        listed = {entry.kind: entry for entry in vocabulary().stages}
        self.assertEqual(list(listed), list(KINDS))
        for kind, document, stage in each():
            with self.subTest(kind):
                jsonschema.validate(document, schema)
                entry = listed[kind]
                self.assertEqual(entry.start, document["drive"]["stages"][0])
                self.assertEqual(bool(entry.measure), bool(stage.members))
                known = {*(field.key for field in entry.fields), *(member.key for member in stage.members)}
                self.assertLessEqual(set(entry.start), {"kind", *known})


class Friction(unittest.TestCase):
    def test_a_roller_that_is_pressed_too_little_is_told(self) -> None:
        for force, told in (("5 N", True), ("5000 N", False)):
            document = raw("friction", **{"drive.stages.0.press_force": force})
            document["drive"]["stages"][0]["press_force"] = force
            found = [m for m in messages(evaluate([design.read(document)])) if m.path == f"{PATH}.press_force"]
            self.assertEqual(bool(found), told, force)

    def test_its_caution_begins_at_press_force_times_friction(self) -> None:
        (stage,) = design.read_stages([{**KINDS["friction"].start, "kind": "friction", "friction": 0.5}])
        holds = 80.0 * 0.5 * 0.015
        self.assertEqual(list(stage.cautions(0.999 * holds)), [])
        self.assertEqual([key for key, _ in stage.cautions(1.001 * holds)], ["press_force"])

    def test_what_nobody_measured_is_assumed(self) -> None:
        assumed = design.read(raw("friction")).assumed
        for key, value in (("friction", 0.6), ("slip", 0.03), ("efficiency", 0.92)):
            self.assertIn(f"{PATH}.{key} = {value:g}", assumed)
