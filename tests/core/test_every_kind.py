"""Each kind of stage is asked everything that a stage is asked: what one kind forgets to say shows here."""

from __future__ import annotations

import copy
import dataclasses
import unittest

import jsonschema
import numpy as np

from tests.core import test_row_working, test_working
from tests.core.designs import PLAIN, changed
from tests.core.every_kind import (
    AROUND,
    NOW,
    PATH,
    PLATE,
    SAYS_NOTHING,
    WITH,
    WITHOUT,
    another,
    answers_about,
    bin_for,
    drives_of_option,
    each,
    everywhere,
    fields_of,
    typed,
)
from ydrometer.base import paths
from ydrometer.base.errors import DocumentError
from ydrometer.base.reading import key_of
from ydrometer.base.tables import uncertainties as table
from ydrometer.build.bin import bin_of
from ydrometer.document import design
from ydrometer.document.changes import changes
from ydrometer.document.stages import KINDS, power_lost
from ydrometer.document.stages.plane import Loop, OtherPlane
from ydrometer.document.walk import stage_at
from ydrometer.drawing import draw_line
from ydrometer.evaluation.driveline import assemble, with_ratios
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.flow import flows
from ydrometer.evaluation.result import result
from ydrometer.evaluation.rotation import rotation
from ydrometer.evaluation.sweep import variants
from ydrometer.files.fit_report import report
from ydrometer.fit.line import planes
from ydrometer.parts.fitting import fits
from ydrometer.parts.kinds import KINDS as PARTS
from ydrometer.questions.inverse import inverse, unknowns
from ydrometer.screens.build_shown import Site, build_shown
from ydrometer.screens.gauge_bands import uncertainties
from ydrometer.screens.live import Wish, look
from ydrometer.screens.mounted import mounted
from ydrometer.screens.parts_shown import BenchKnown, parts_shown
from ydrometer.screens.sweeps import sweep_of
from ydrometer.screens.vocabulary import vocabulary
from ydrometer.search import answer, read_request
from ydrometer.search.classes import head_design
from ydrometer.search.run import search
from ydrometer.taking import applied, exchanged
from ydrometer.taking import changes as changes_of
from ydrometer.working import working


class EveryKind(unittest.TestCase):
    def test_is_evaluated_and_its_overall_ratio_is_that_of_its_working(self) -> None:
        for kind, document, stage in each():
            with self.subTest(kind):
                read = design.read(document)
                self.assertEqual(result(evaluate([read]))["state"], "ok")
                steps = working(read, "overall_ratio")
                self.assertAlmostEqual(steps.value or 0.0, 56 / 15 * stage.speed_ratio, 9)
                self.assertAlmostEqual(steps.steps[-1].value, 56 / 15 * stage.speed_ratio, 9)

    def test_power_that_goes_in_comes_out_or_is_lost(self) -> None:
        for kind, document, stage in each():
            with self.subTest(kind):
                evaluation = evaluate([design.read(document)])
                driving = next(flow for flow in flows(evaluation) if flow.moment == "top speed")
                entry = driving.stages[-1]
                powers = {shaft.shaft: shaft.power for shaft in driving.shafts}
                self.assertAlmostEqual(entry.loss / powers[entry.driver_shaft], entry.lost, 9)
                self.assertAlmostEqual(entry.lost, power_lost(stage), 12)

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
                answered = answer(read_request(request), processes=1)
                self.assertEqual(answered["combinations"], 1)
                ratio = answered["options"][0]["measures"]["overall_ratio"]["value"][0]["value"]
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

    def test_every_measure_follows_from_its_working_wherever_it_stands(self) -> None:
        for kind, path, document in everywhere():
            with self.subTest(kind, path=path):
                test_working.Recomputing().check(document)

    def test_what_it_turns_is_the_same_in_line_on_the_plate_and_in_loads(self) -> None:
        for kind, path, document in everywhere():
            read = design.read({**document, "fit": PLATE})
            stage = stage_at(read.design, path)
            assert stage is not None
            with self.subTest(kind, path=path):
                (row,) = draw_line(read.design).rows
                drawn = {wheel.path: wheel.rotation for wheel in row.wheels if wheel.member == "driver"}
                for plane in planes(read.design):
                    for coupling in plane.couplings if not plane.behind else ():
                        if coupling.own:
                            self.assertEqual(coupling.turns, drawn[coupling.path], coupling.path)
                known = not isinstance(stage.in_plane, OtherPlane)
                ends = [shaft.rotation for shaft in row.shafts]
                self.assertEqual(rotation(read.design).forwards if known else True, ends[-1] > 0 if known else True)

    def test_search_and_evaluation_put_it_together_alike(self) -> None:
        for kind, path, document in everywhere():
            stages = [*document["drive"]["branches"][0]["stages"], *document["drive"]["stages"]]
            for heavy in (stage for stage in stages if "inertia" in fields_of(stage["kind"])):
                heavy["inertia"] = "4e-5 kg*m^2"
            layout = {"stages": [{"kind": "fixed", "stage": stage} for stage in stages]}
            bare = changed({"drive.branches.0.stages": [], "drive.stages": []}, document)
            request = {"format": "ydrometer-search", "version": 1, "design": bare, "parts": [], "layouts": [layout]}
            with self.subTest(kind, path=path):
                outcome = search(read_request(request))
                ((_, option),) = outcome.best
                (answered,) = answer(read_request(request))["options"]
                whole = design.read(answered["design"]).design
                (drive,) = drives_of_option(read_request(request), option)
                bases = [head_design(read_request(request), read_request(request).body.layouts[0], option.head, 0.0)]
                searched = with_ratios(assemble(bases), bases[0], drive.branch, drive.trunk)
                np.testing.assert_allclose(
                    searched.gears["inertial_mass"], assemble([whole]).gears["inertial_mass"], rtol=1e-12
                )

    def test_loads_agree_with_their_workings_wherever_it_stands(self) -> None:
        for kind, path, document in everywhere():
            stage = paths.value_at(document, path)
            stage |= {"inertia": "4e-5 kg*m^2"} if "inertia" in fields_of(kind) else {}
            with self.subTest(kind, path=path):
                test_row_working.RowWorkings().check(document)

    def test_is_listed_with_its_parts_and_built_wherever_it_stands(self) -> None:
        for kind, path, document in everywhere():
            read = design.read(document)
            stage = stage_at(read.design, path)
            assert stage is not None
            parts = bin_for(stage, document, path)
            with self.subTest(kind, path=path):
                shown = parts_shown(read, BenchKnown(bin_of(parts)))
                mine = [line for line in shown.lines if line.bin in {part["id"] for part in parts}]
                self.assertEqual({line.bin for line in mine}, {part["id"] for part in parts} - {"other"})
                self.assertTrue(mine or not parts)
                built = build_shown(read, Site(BenchKnown(bin_of(parts)), NOW))
                of_it = [step for step in built.steps if step.id.startswith(f"{path}:")]
                self.assertTrue(of_it, "no step speaks of it")
                self.assertNotIn("None", " ".join(step.title for step in built.steps))

    def test_takes_its_own_parts_and_is_then_what_the_bin_has(self) -> None:
        for kind, path, document in everywhere():
            stage = stage_at(design.read(document).design, path)
            assert stage is not None
            for part in bin_for(stage, document, path):
                if part["id"] == "other":
                    continue
                member = part["id"] if stage.member(part["id"]) else ""
                with self.subTest(kind, path=path, part=part["id"]):
                    made = applied(document, changes_of(document, path, member, part))
                    self.assertEqual(design.read(made).design, design.read(document).design)

    def test_every_kind_becomes_every_other_kind(self) -> None:
        for _, path, document in everywhere():
            for other, kind in KINDS.items():
                alone = (
                    changed({"drive.stages": []}, document)
                    if path.startswith("drive.b")
                    else changed({"drive.stages": [paths.value_at(document, path)]}, document)
                )
                place = path if path.startswith("drive.b") else PATH
                with self.subTest(paths.value_at(alone, place)["kind"], to=other, path=place):
                    if kind.several_speeds and place != PATH:
                        self.assertRaises(DocumentError, exchanged, alone, place, other)
                        continue
                    made = changed({}, alone)
                    paths.put(made, place, exchanged(alone, place, other))
                    before, after = (stage_at(design.read(one).design, place) for one in (alone, made))
                    assert before is not None
                    assert after is not None
                    self.assertEqual(after.kind, other)
                    least, most = (design.read_stages([kind.started(ratio)])[0].ratio for ratio in (1e-3, 1e5))
                    nearest = min(max(before.ratio, least), most)
                    self.assertAlmostEqual(after.ratio / nearest, 1.0, delta=0.1)

    def test_every_declared_field_changes_some_answer(self) -> None:
        for kind in KINDS:
            known = {key_of(field) for field in dataclasses.fields(KINDS[kind])}  # type: ignore[arg-type]
            for key in sorted(known):
                with self.subTest(kind, field=key):
                    document = changed({"drive.stages": [{**typed(kind), **WITH.get((kind, key), {})}, AROUND]})
                    stage = document["drive"]["stages"][0]
                    other = copy.deepcopy(document)
                    before = answers_about(document)
                    stage = other["drive"]["stages"][0]
                    stage.pop(WITHOUT.get((kind, key), ""), None)
                    stage[key] = another(KINDS[kind], key, stage)
                    changes_something = before != answers_about(other)
                    self.assertEqual(changes_something, (kind, key) not in SAYS_NOTHING)

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
