"""Each kind of stage is asked everything that a stage is asked: what one kind forgets to say shows here."""

from __future__ import annotations

import copy
import dataclasses
import unittest
from collections.abc import Iterator
from datetime import datetime
from typing import Any

import jsonschema
import numpy as np

from tests.core import test_row_working, test_working
from tests.core.designs import PLAIN, changed
from ydrometer.base import paths
from ydrometer.base.errors import DocumentError
from ydrometer.base.reading import key_of
from ydrometer.base.tables import uncertainties as table
from ydrometer.document import design
from ydrometer.document.changes import changes
from ydrometer.document.stages import KINDS, Stage, power_lost
from ydrometer.document.stages.plane import Loop, OtherPlane
from ydrometer.document.walk import stage_at
from ydrometer.drawing import draw_line
from ydrometer.evaluation.driveline import assemble, with_ratios
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.flow import flows
from ydrometer.evaluation.messages import messages
from ydrometer.evaluation.result import result
from ydrometer.evaluation.rotation import rotation
from ydrometer.evaluation.sweep import variants
from ydrometer.files.fit_report import report
from ydrometer.fit.line import planes
from ydrometer.loads.limits import limits
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
from ydrometer.search.choices import slots, trunk_from
from ydrometer.search.classes import head_design
from ydrometer.search.drives import Drive, drives
from ydrometer.search.option import Option
from ydrometer.search.request import SearchRequest
from ydrometer.search.run import search
from ydrometer.taking import applied, exchanged
from ydrometer.taking import changes as changes_of
from ydrometer.working import working

PATH = "drive.stages[0]"
OWN = "drive.branches[0].stages[0]"
PLATE = {"plate": {"hole_pitch": "12 mm", "across": 40, "up": 12}}
AROUND: dict[str, Any] = {"kind": "chain", "driver_teeth": 11, "driven_teeth": 22, "pitch": "6.35 mm"}
"""What stands behind a stage."""
NOW = datetime(2027, 5, 3, 12)
OTHERWISE: dict[str, Any] = {
    "integer": 29,
    "boolean": True,
    "angle": "25 deg",
    "ratio": 0.41,
    "length": "7.7 mm",
    "force": "61 N",
    "torque": "1.3 N*m",
    "angular speed": "1234 rpm",
    "stress": "31 MPa",
    "inertia": "3e-4 kg*m^2",
    "mass": "0.7 kg",
    "time": "0.9 s",
    "force per width": "3 N/mm",
    "diametral pitch": "20 1/in",
}
"""Another value of each kind of field."""
LISTED: dict[str, Any] = {
    "idlers": [24],
    "reductions": [5, 2],
    "ratios": [4, 2, 1],
    "torque_ratings": ["2 N*m", "3 N*m"],
}
NOT_GIVEN = {"belt_teeth": 97, "links": 71}
"""The same of whole numbers that a usual stage does not say."""
SAYS_NOTHING = {("chain", "width"): "kept as typed: no check knows yet how wide chains of a pitch are"}
"""Fields that change no answer, and why."""
WITHOUT: dict[tuple[str, str], str] = {("gear", "module"): "diametral_pitch", ("gear", "diametral_pitch"): "module"}
"""Of two fields that exclude each other the one that goes."""
WITH: dict[tuple[str, str], dict[str, Any]] = {
    ("belt", "profile"): {"width": "10 mm"},
    ("v_belt", "top_width"): {"section": "A"},
}
"""What a field says nothing without."""


def typed(kind: str) -> dict[str, Any]:
    """A usual stage of a kind, as typed."""
    return {"kind": kind, **copy.deepcopy(dict(KINDS[kind].start))}


def raw(kind: str, **more: Any) -> dict[str, Any]:
    """The plain design with one stage of a kind, as it is added, before the wheels."""
    return changed({"drive.stages": [typed(kind)], **more})


def each() -> Iterator[tuple[str, dict[str, Any], Stage]]:
    """Every kind, with a design and its stage."""
    for kind in KINDS:
        yield kind, raw(kind), design.read(raw(kind)).design.drive.stages[0]


def everywhere() -> Iterator[tuple[str, str, dict[str, Any]]]:
    """Every kind where it may stand: in the trunk between two stages, first in a branch, and last before the wheels."""
    gears = PLAIN["drive"]["branches"][0]["stages"]
    for kind in KINDS:
        yield kind, PATH, changed({"drive.stages": [typed(kind), AROUND]})
        yield kind, "drive.stages[1]", changed({"drive.stages": [AROUND, typed(kind)]})
        if not KINDS[kind].several_speeds:
            yield kind, OWN, changed({"drive.branches.0.stages": [typed(kind), *gears]})
            yield kind, "drive.branches[0].stages[1]", changed({"drive.branches.0.stages": [*gears, typed(kind)]})


def bin_for(stage: Stage, document: dict[str, Any], path: str) -> list[dict[str, Any]]:
    """A bin that has what a stage is made of, and of each other size one part that is not it."""
    written = paths.value_at(document, path)
    if stage.whole_part:
        box = {"id": "box", "kind": stage.whole_part, stage.ratio_key: written[stage.ratio_key], "owned": 9}
        return [box, {"id": "other", "kind": stage.whole_part, "ratio": 1.2345, "owned": 9}]
    parts = []
    for member in stage.members:
        form = member.form
        if form.part:
            sizes = {key: written[key] for key in form.size_keys if key in written}
            measure = paths.value_at(document, f"{path}.{member.key}")
            parts.append({"id": member.name, "kind": form.part, form.measure: measure, **sizes, "owned": 9})
    if isinstance(stage.in_plane, Loop) and stage.in_plane.pieces_key:
        loop = stage.in_plane
        sizes = {key: written[key] for form in (stage.form,) if form for key in form.size_keys if key in written}
        parts.append({"id": "loop", "kind": loop.part, loop.part_key: written[loop.pieces_key], **sizes, "owned": 9})
    return parts


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
                shown = parts_shown(read, BenchKnown(parts))
                mine = [line for line in shown.lines if line.bin in {part["id"] for part in parts}]
                self.assertEqual({line.bin for line in mine}, {part["id"] for part in parts} - {"other"})
                self.assertTrue(mine or not parts)
                built = build_shown(read, Site(BenchKnown(parts), NOW))
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


def fields_of(kind: str) -> set[str]:
    """Keys that a kind declares."""
    return {key_of(field) for field in dataclasses.fields(KINDS[kind])}  # type: ignore[arg-type]


def another(kind: type[Stage], key: str, stage: dict[str, Any]) -> Any:
    """Another value of a field than the one that stands there, as typed."""
    if key in LISTED:
        return LISTED[key]
    declared = next(field for field in dataclasses.fields(kind) if key_of(field) == key)  # type: ignore[arg-type]
    spec = declared.metadata["spec"]
    if spec.absent is not None:
        return OTHERWISE[spec.absent.dimension]
    schema = spec.read.schema()
    if "enum" in schema:
        return next(value for value in schema["enum"] if value != stage.get(key))
    present = stage.get(key)
    if schema["type"] == "integer" and present is not None:
        return present + 1 if present < schema["maximum"] else present - 1
    return NOT_GIVEN.get(key, OTHERWISE[schema["type"]])


def answers_about(document: dict[str, Any]) -> str:
    """All that is said of a design: figures, picture, plate, loads, parts and steps."""
    read = design.read({**document, "fit": PLATE})
    evaluation = evaluate([read])
    shown = parts_shown(read, BenchKnown())
    built = build_shown(read, Site(BenchKnown(), NOW))
    rows = [dataclasses.replace(row, strain=None) for row in limits(evaluation).rows]
    said = (
        result(evaluation),
        draw_line(read.design),
        report(read),
        rows,
        shown.lines,
        shown.mass,
        [step.title for step in built.steps],
    )
    return repr(said)


def drives_of_option(request: SearchRequest, option: Option) -> Iterator[Drive]:
    """What an option drives like, as the search has it."""
    layout = request.body.layouts[option.layout]
    chosen = [np.array([one]) for one in option.chosen]
    yield drives(slots(request, layout), trunk_from(layout), chosen, np.zeros(1))


class Friction(unittest.TestCase):
    def test_a_roller_that_is_pressed_too_little_is_told(self) -> None:
        for force, told in (("5 N", True), ("5000 N", False)):
            document = raw("friction", **{"drive.stages.0.press_force": force})
            document["drive"]["stages"][0]["press_force"] = force
            rows = [m for m in messages(evaluate([design.read(document)])) if m.path == f"{PATH}.press_force"]
            self.assertEqual(bool(rows), told, force)

    def test_its_caution_begins_at_press_force_times_friction(self) -> None:
        (stage,) = design.read_stages([{**KINDS["friction"].start, "kind": "friction", "friction": 0.5}])
        holds = 80.0 * 0.5 * 0.015
        self.assertEqual(list(stage.cautions(0.999 * holds)), [])
        self.assertEqual([key for key, _ in stage.cautions(1.001 * holds)], ["press_force"])

    def test_what_nobody_measured_is_assumed(self) -> None:
        assumed = design.read(raw("friction")).assumed
        for key, value in (("friction", 0.6), ("slip", 0.03), ("efficiency", 0.92)):
            self.assertIn(f"{PATH}.{key} = {value:g}", assumed)
