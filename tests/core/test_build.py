import unittest
from typing import Any

import jsonschema
from hypothesis import given, settings

from tests.core.designs import PLAIN, SIX_STAGES, changed
from tests.core.lines import lines, stage
from ydrometer.base.errors import DocumentError
from ydrometer.build.making import jobs
from ydrometer.build.order import before, in_order
from ydrometer.build.own import read_own, with_own
from ydrometer.build.parts_list import makings, parts_list
from ydrometer.build.step import Step
from ydrometer.build.steps import steps_of
from ydrometer.build.workshop import workshop
from ydrometer.document import design
from ydrometer.document.stages import KINDS, gear_build
from ydrometer.document.stages.assembly import Hands, Record
from ydrometer.document.walk import shaft_paths, stages_with_paths
from ydrometer.files.answer_schemas import build as schema
from ydrometer.files.build_report import report
from ydrometer.starting.starts import BY_KEY, design_of


def made(document: dict[str, Any]) -> list[Step]:
    shop = workshop(design.read(document))
    return steps_of(shop, jobs(makings(parts_list(shop).lines)))


def titles(document: dict[str, Any]) -> dict[str, str]:
    return {step.id: step.title for step in made(document)}


MAYBE = {"key", "sleeve", "adapter", "spacer", "retaining compound", "offset link", "track", "track sprocket", "wheel"}
"""Kinds that a step takes where its design has them."""


class OfEveryDesign(unittest.TestCase):
    def check(self, document: dict[str, Any]) -> None:
        steps = made(document)
        place = {step.id: number for number, step in enumerate(steps)}
        self.assertEqual(len(place), len(steps), "ids are unique")
        for step in steps:
            self.assertLessEqual(set(step.needs), set(place), f"{step.id} needs what is not there")
            self.assertTrue(all(place[need] < place[step.id] for need in step.needs), step.id)
        self.nothing_stays_loose(steps, place)
        self.nothing_buried_is_needed_later(steps, place)
        self.every_part_is_in_a_step(document, steps)
        self.list_and_steps_agree(document, steps)

    def nothing_stays_loose(self, steps: list[Step], place: dict[str, int]) -> None:
        opened = {loose.id: step.id for step in steps for loose in step.opens}
        closed = [(id_, step.id) for step in steps for id_ in step.closes]
        self.assertEqual(sorted(opened), sorted(id_ for id_, _ in closed), "opened and closed once each")
        signed = place["vehicle:sign_off"]
        for id_, closer in closed:
            self.assertLess(place[opened[id_]], place[closer], id_)
            self.assertLess(place[closer], signed, id_)
            for step in steps:
                if step.powers:
                    self.assertLess(place[closer], place[step.id], f"{id_} is loose under power")

    def nothing_buried_is_needed_later(self, steps: list[Step], place: dict[str, int]) -> None:
        for step in steps:
            self.assertTrue(all(place[buried] < place[step.id] for buried in step.buries), step.id)

    def list_and_steps_agree(self, document: dict[str, Any], steps: list[Step]) -> None:
        listed = [line.need for line in parts_list(workshop(design.read(document))).lines]
        for need in listed:
            users = [s for s in steps if need.kind in s.uses and {s.place, *s.parts} & set(need.where)]
            self.assertTrue(users, f"no step takes the {need.words}")
        for step in steps:
            there = {need.kind for need in listed if {step.place, *step.parts} & set(need.where)}
            self.assertLessEqual(set(step.uses) - MAYBE, there, f"{step.id} takes what is not on the list")

    def every_part_is_in_a_step(self, document: dict[str, Any], steps: list[Step]) -> None:
        read = design.read(document).design
        handled = {part for step in steps for part in step.parts}
        stages = [path for path, _ in stages_with_paths(read)]
        wheels = [f"{path} {m.name}" for path, one in stages_with_paths(read) for m in one.members]
        supply = ["drive.supply"] if read.drive.supply else []
        for wanted in (*stages, *wheels, *shaft_paths(read), *supply):
            self.assertIn(wanted, handled)

    @settings(max_examples=60, deadline=None, derandomize=True)
    @given(lines())
    def test_can_be_followed(self, document: dict[str, Any]) -> None:
        self.check(document)

    def test_every_kind_by_itself_can_be_followed_and_is_written_as_published(self) -> None:
        for kind in KINDS:
            with self.subTest(kind):
                document = changed({"drive.stages": [stage(kind)]})
                self.check(document)
                jsonschema.validate(report(design.read(document)), schema())

    def test_two_branches_of_several_motors(self) -> None:
        self.check(SIX_STAGES)


class Ids(unittest.TestCase):
    def test_stay_when_something_else_changes(self) -> None:
        ids = set(titles(PLAIN))
        other_teeth = {"drive.branches.0.stages.0.driver_teeth": 17, "vehicle.mass": "20 kg"}
        self.assertEqual(set(titles(changed(other_teeth))), ids)

    def test_of_the_first_unit_stay_when_units_are_added(self) -> None:
        one, three = (set(titles(changed({"drive.units": units}))) for units in (1, 3))
        self.assertLess(one, three)
        self.assertTrue(all(id_.endswith(("@2", "@3")) for id_ in three - one))

    def test_of_many_units_there_is_one_step_for_all(self) -> None:
        found = titles(changed({"drive.units": 12}))
        self.assertIn("(on each of the 12 units)", found["drive.branches[0].stages[0]:play"])


class Numbers(unittest.TestCase):
    def test_play_that_no_paper_leaves_is_felt(self) -> None:
        # Backlash of 0.04 modules wants 0.04 mm/2·cos 20° of paper, which nobody has: 0.04 mm/28 mm felt at 100 mm.
        self.assertIn("0.14 mm of rocking 100 mm out", titles(PLAIN)["drive.branches[0].stages[0]:play"])

    def test_play_by_paper_of_the_thickness_that_paper_has(self) -> None:
        said = {}
        for thick in (0.05, 0.08, 0.13, 0.2, 0.3):
            hands = Hands(path="a", wheels=("x", "y"), settings={"paper_for_play": 1e-3 * thick})
            said[thick] = next(job for job in gear_build.jobs(hands) if job.verb == "play")
        by_paper = {thick: "paper" in job.title for thick, job in said.items()}
        self.assertEqual(by_paper, {0.05: False, 0.08: True, 0.13: True, 0.2: True, 0.3: False})
        self.assertIn("a paper strip of 0.08 mm through", said[0.08].title)
        self.assertIn("two paper strips of 0.1 mm together", said[0.2].title)
        self.assertEqual([said[thick].tools[0] for thick in (0.05, 0.2)], ["dial or feeler gauge", "paper strip"])

    def test_a_reading_beside_what_is_right_is_told(self) -> None:
        bar, open_end = Record("scale bar", "mm", (99.5, 100.5)), Record("limit", "A", (0.0, 30.0))
        for record, value, wrong in (
            (bar, "100,2 mm", ""),
            (bar, "92", "scale bar: 92 mm is not 99.5 to 100.5 mm"),
            (bar, "3.9 in", ""),
            (bar, "fine", ""),
            (open_end, "40 A", "limit: 40 A is not at most 30 A"),
            (Record("warmth", "degC"), "999", ""),
        ):
            self.assertEqual(record.beside(value), wrong)
        right = {step.id: step.record.right for step in made(PLAIN) if step.record is not None}
        self.assertEqual(right["drive.branches[0].controller:set"], (0.0, 1.02 * 22))

    def test_a_tensioner_is_mounted_moved_and_tightened(self) -> None:
        roll = {"at": ["30 mm", "0 mm"], "diameter": "20 mm"}
        steps = made(changed({"fit": {"loops": [{"stage": "drive.stages[0]", "tensioner": roll}]}}))
        order = [step.id for step in steps]
        three = [f"drive.stages[0]:{verb}" for verb in ("tensioner", "tension", "tighten_tensioner")]
        self.assertEqual([id_ for id_ in order if id_ in three], three)
        opened = next(step for step in steps if step.id == three[0]).opens
        closed = next(step for step in steps if step.id == three[2]).closes
        self.assertEqual([loose.id for loose in opened], list(closed))

    def test_locker_comes_before_the_guards_that_cover_its_screws(self) -> None:
        order = [step.id for step in made(PLAIN)]
        guards = [id_ for id_ in order if id_.split("@")[0].endswith(":guard")]
        self.assertTrue(guards)
        for guard in guards:
            unit = guard.partition("@")[2]
            locker = "vehicle:locker" + (f"@{unit}" if unit else "")
            self.assertLess(order.index(locker), order.index(guard))

    def test_schools_have_their_own_words(self) -> None:
        by_ear = titles(changed({"build": {"backlash": "ear", "locking": "lock nuts"}}))
        self.assertIn("a howl is too tight", by_ear["drive.branches[0].stages[0]:play"])
        self.assertIn(
            "lock washers", by_ear["drive.branches[0].stages[0]:tighten"], "a motor has the thread in its face"
        )
        self.assertIn("lock nuts", by_ear["drive.branches[0].stages[0]:bearings"], "these screws go through")
        self.assertNotIn("vehicle:locker", by_ear)
        taut = {"fit": {"loops": [{"stage": "drive.stages[0]", "tension": "45 N", "mass_per_length": "46 g/m"}]}}
        self.assertIn("N push it in by", titles(changed(taut))["drive.stages[0]:tension"])
        plucked = titles(changed({**taut, "build": {"tension": "pluck"}}))["drive.stages[0]:tension"]
        self.assertRegex(plucked, r"sounds at \d+ Hz")

    def test_the_wheel_in_the_air_is_predicted(self) -> None:
        self.assertRegex(titles(PLAIN)["vehicle:spin"], r"\d{3,} rpm are predicted")

    def test_an_odd_chain_ends_in_an_offset_link(self) -> None:
        chain = {"kind": "chain", "driver_teeth": 11, "driven_teeth": 22, "pitch": "6.35 mm", "links": 61}
        count = titles(changed({"drive.stages": [chain]}))["drive.stages[0]:count"]
        self.assertIn("Count 60 links of the chain and part it there; with the offset link they are 61", count)

    def test_a_neighbour_hides_the_cable_that_is_laid_before_it(self) -> None:
        steps = made(changed({"drive.branches.0.count": 3}))
        hides = {step.id: step.buries for step in steps if step.id.endswith(":mount")}
        source = "drive.branches[0].source"
        self.assertEqual(hides[f"{source}[2]:mount"], (f"{source}:plug", f"{source}[1]:plug"))


def engine(**more: Any) -> dict[str, Any]:
    """A vehicle of one engine that drives a chain."""
    return changed({**more, "drive.stages.0": CHAIN}, design_of(BY_KEY["ride_on_engine"]))


CHAIN = {"kind": "chain", "driver_teeth": 12, "driven_teeth": 60, "pitch": "12.7 mm"}
SOURCE = "drive.branches[0].source"


class Engines(unittest.TestCase):
    def test_what_it_drives_sits_on_the_drum_of_its_clutch_and_not_on_its_shaft(self) -> None:
        fit = {"shafts": [{"shaft": SOURCE, "mount": "fixed", "at": [0, 0], "diameter": "19 mm", "shape": "keyway"}]}
        document = engine(fit=fit)
        steps = {step.id: step for step in made(document)}
        wheel = steps[f"{SOURCE}:wheel"]
        self.assertIn("on the drum of the clutch, never on the shaft of the engine", wheel.title)
        self.assertNotIn("key", wheel.title)
        self.assertEqual(wheel.needs, (f"{SOURCE}:clutch",))
        lines_ = parts_list(workshop(design.read(document))).lines
        sprocket = next(line.need for line in lines_ if line.need.words.startswith("12-tooth"))
        self.assertIsNone(sprocket.shaft, "its bore is that of the drum, not 19 mm")
        self.assertIn("bore as the clutch's drum", sprocket.words)
        self.assertEqual([line.need.number for line in lines_ if line.need.kind == "key"], [1], "the clutch's own")

    def test_a_motor_has_no_clutch(self) -> None:
        self.assertNotIn(f"{SOURCE}:clutch", titles(PLAIN))
        self.assertNotIn("drum", titles(PLAIN)[f"{SOURCE}:wheel"])

    def test_its_steps_speak_of_what_it_has(self) -> None:
        steps = made(engine())
        said = " ".join(words for step in steps for words in (step.title, step.why, *step.cautions)).lower()
        for word in ("battery", "winding", "full throttle and count"):
            self.assertNotIn(word, said)
        for word in ("plug cap off", "fuel", "out of doors", "springs", "burn for long"):
            self.assertIn(word, said)

    def test_its_stop_is_tried_with_it_in(self) -> None:
        place = {step.id: number for number, step in enumerate(made(engine()))}
        self.assertLess(place[f"{SOURCE}:mount"], place["drive:stop"])
        self.assertLess(place["vehicle:stand"], place["drive:try_stop"])
        self.assertLess(place["drive:try_stop"], place[f"{SOURCE}:alone"])


class Stopping(unittest.TestCase):
    def test_a_switch_is_tried_once_leads_are_joined_and_again_with_everything_in(self) -> None:
        steps = made(PLAIN)
        place = {step.id: number for number, step in enumerate(steps)}
        self.assertNotIn("try", titles(PLAIN)["drive.supply:switch"])
        order = ["drive.supply:leads", "drive.supply:try_off", f"{SOURCE}:alone", "vehicle:all_off", "vehicle:spin"]
        self.assertEqual(sorted(order, key=lambda id_: place[id_]), order)

    def test_brakes_are_tried_standing_and_rolling_before_the_first_run(self) -> None:
        order = ["vehicle:brakes", "vehicle:brakes_standing", f"{SOURCE}:alone", "vehicle:brakes_rolling"]
        for changes in ({"vehicle.brake_force": "40 N"}, {"vehicle.payload": "70 kg"}):
            ids = [step.id for step in made(changed({"vehicle.payload": 0, **changes}))]
            self.assertEqual(
                [id_ for id_ in ids if id_ in (*order, "vehicle:first_run")], [*order, "vehicle:first_run"]
            )

    def test_without_brakes_and_rider_there_are_none(self) -> None:
        self.assertFalse([id_ for id_ in titles(changed({"vehicle.payload": 0})) if "brakes" in id_])

    def test_a_panel_is_covered_and_no_battery_is_spoken_of(self) -> None:
        panel = design_of(BY_KEY["panel_car"])
        said = " ".join(caution for step in made(panel) for caution in step.cautions)
        self.assertIn("Panel covered", said)
        self.assertNotIn("Battery", said)

    def test_a_pack_is_strapped_down_before_power(self) -> None:
        ids = [step.id for step in made(PLAIN)]
        self.assertLess(ids.index("drive.supply:pack"), ids.index("drive.supply:try_off"))
        self.assertEqual(ids[ids.index("drive.supply:pack") + 1], "vehicle:look_over", "when no hand goes in any more")


class Screws(unittest.TestCase):
    def test_that_are_cut_have_their_new_length_in_every_later_step(self) -> None:
        bolts = {"count": 4, "circle": "25 mm", "hole": "3.2 mm", "length": "12 mm", "depth": "4 mm"}
        shaft = {"shaft": SOURCE, "bolts": bolts, "mount": "free"}
        plate = {"hole_pitch": "12 mm", "across": 4, "up": 4, "thickness": "3 mm"}
        steps = {step.id: step for step in made(changed({"fit": {"plate": plate, "shafts": [shaft]}}))}
        self.assertIn("from 12 mm to 7 mm", steps[f"{SOURCE}:shorten"].title)
        self.assertIn("4 screws of 7 mm", steps[f"{SOURCE}:mount"].title)
        self.assertIn("go 4 mm into it", steps[f"{SOURCE}:mount"].why)


class Order(unittest.TestCase):
    def test_a_shaft_that_is_moved_for_one_stage_stands_before_the_next_is_set(self) -> None:
        slot = {"mount": "slot", "slot": {"start": ["60 mm", "48 mm"], "end": ["90 mm", "48 mm"]}}
        fixed = {"shaft": "drive.branches[0].source", "mount": "fixed", "at": ["10 mm", "48 mm"]}
        jack = {"shaft": "drive.branches[0].stages[0]", **slot}
        steps = made(changed({"fit": {"shafts": [fixed, jack]}, "drive.units": 1}))
        self.assertIn("drive.branches[0].stages[0]:tighten", before(steps)["drive.stages[0]:tension"])

    def test_a_circle_is_refused_with_its_steps(self) -> None:
        round_ = [Step(id=a, title=a, kind="own", place="", minutes=1.0, needs=(b,)) for a, b in ("ab", "bc", "ca")]
        with self.assertRaises(DocumentError) as caught:
            in_order(round_)
        self.assertIn("circle", str(caught.exception))


class OwnSteps(unittest.TestCase):
    def test_stand_behind_the_step_they_name_and_before_what_needs_it(self) -> None:
        steps = made(PLAIN)
        own = read_own({"steps": [{"id": "own-1", "title": "Engrave the number", "after": "fit:mark_out"}]})
        ids = [step.id for step in with_own(steps, own)]
        self.assertEqual(ids.index("own-1"), ids.index("fit:mark_out") + 1)
        self.assertEqual([id_ for id_ in ids if id_ != "own-1"], [step.id for step in steps])

    def test_one_whose_place_is_gone_stands_at_the_end(self) -> None:
        own = read_own({"steps": [{"id": "own-1", "title": "Polish", "after": "drive.stages[7]:play"}]})
        self.assertEqual(with_own(made(PLAIN), own)[-1].id, "own-1")

    def test_without_words_is_refused(self) -> None:
        with self.assertRaises(DocumentError) as caught:
            read_own({"steps": [{"id": "own-1", "title": " "}]})
        self.assertEqual(caught.exception.faults[0].path, "steps[0].title")
