"""What comes before what on the bench, and what a step says that has to be done with care."""

import unittest
from datetime import datetime
from typing import Any

from tests.core.designs import PLAIN, changed
from tests.core.lines import ADAPTER
from tests.core.plates import AXLE, JACK, MOTOR, at, shaft
from tests.core.test_build import made
from ydrometer.build.order import before
from ydrometer.build.progress import Done, Tick, conditions, held_back
from ydrometer.build.step import Step

PLATE = {"hole_pitch": "12 mm", "across": 30, "up": 10, "thickness": "3 mm"}
SLOT = {"mount": "slot", "slot": {"start": at(60, 48), "end": at(90, 48)}}
BOLTS = {"count": 4, "circle": "25 mm", "hole": "3.2 mm", "angle": "45 deg"}
ROW = {"kind": "gear", "driver_teeth": 15, "driven_teeth": 40, "idlers": [20, 30], "module": "1 mm"}


def built(fit: dict[str, Any] | None = None, /, **edits: Any) -> dict[str, Step]:
    """Steps of one unit, by their ids, in their order."""
    more = {"fit": fit} if fit else {}
    return {step.id: step for step in made(changed({"drive.units": 1, **edits, **more}))}


class Shafts(unittest.TestCase):
    def test_end_play_is_set_before_wheels_are_lined_up_and_looked_at_after_it(self) -> None:
        steps = list(built())
        order = [f"{AXLE}:{verb}" for verb in ("stack", "end_play", "line_up", "end_play_again")]
        self.assertEqual([id_ for id_ in steps if id_ in order], order)

    def test_road_wheels_need_their_axle(self) -> None:
        behind = before(list(built().values()))
        self.assertIn(f"{AXLE}:end_play", behind["vehicle:road_wheels"])
        direct = built(**{"drive.branches.0.stages": [], "drive.stages": []})
        self.assertIn(f"{MOTOR}:mount", before(list(direct.values()))["vehicle:road_wheels"])

    def test_one_that_slides_has_its_bearings_in_plates_that_slide(self) -> None:
        jack = {"shaft": JACK, **SLOT, "diameter": "8 mm", "opening": "22 mm"}
        steps = built({"plate": PLATE, "shafts": [shaft(MOTOR, 10, 48), jack]})
        self.assertIn("Make the two bearing plates", steps[f"{JACK}:bearing_plates"].title)
        glued = steps[f"{JACK}:bearings"]
        self.assertIn("into the holes of its bearing plates", glued.title)
        self.assertEqual(glued.buries, (), "it is no hole of the plate")
        on = steps[f"{JACK}:bearing_plates_on"]
        self.assertEqual([loose.id for loose in on.opens], [f"{JACK}:plates"])
        self.assertIn(f"{JACK}:plates", steps[f"{JACK}:tighten"].closes)

    def test_gaps_of_a_stack_are_filled(self) -> None:
        items = [
            {"name": "bearing", "width": "7 mm", "bearing": True},
            {"name": "hub", "width": "10 mm", "at": "12 mm"},
        ]
        jack = shaft(JACK, 90, 48, diameter="8 mm", stack={"between": "40 mm", "items": items})
        title = built({"shafts": [jack]})[f"{JACK}:stack"].title
        self.assertIn("bearing 7 mm, spacer 5 mm, hub 10 mm, spacer 18 mm", title)


class Rows(unittest.TestCase):
    def test_each_pair_of_a_row_is_set_by_its_own_numbers(self) -> None:
        steps = built(**{"drive.branches.0.stages": [ROW]})
        path = "drive.branches[0].stages[0]"
        plays = [step for id_, step in steps.items() if id_.endswith(":play")]
        self.assertEqual(
            [step.id for step in plays], [f"{path}:play", f"{path}.idlers[1]:play", f"{path}.idlers[0]:play"]
        )
        self.assertIn("between the 30-tooth gear and the 40-tooth gear", plays[0].title)
        self.assertIn("between the 15-tooth gear and the 20-tooth gear", plays[2].title)
        self.assertNotEqual(plays[0].title.rpartition(" of rocking")[0], plays[2].title.rpartition(" of rocking")[0])
        aligned = steps[f"{path}:line_up"]
        self.assertIn("20-tooth gear and the 30-tooth gear", aligned.title)
        self.assertEqual(len(aligned.closes), 4, "idlers are fastened too")
        self.assertIn(f"{path}.idlers[0]:stack", before(list(steps.values()))[f"{path}:line_up"])


class Loops(unittest.TestCase):
    FIXED = (shaft(JACK, 60, 48), shaft(AXLE, 220, 48))

    def test_that_nothing_lets_go_of_are_put_on_with_their_wheels(self) -> None:
        steps = built({"shafts": list(self.FIXED)})
        walked = steps[f"{AXLE}:walk_on"]
        self.assertIn("push both onto their shafts with it", walked.title)
        self.assertEqual({loose.id.split(" ")[1] for loose in walked.opens}, {"driver:fastening", "driven:fastening"})
        self.assertNotIn("36-tooth pulley", steps[f"{AXLE}:stack"].title)
        self.assertIn("goes on later, together with its belt", steps[f"{AXLE}:stack"].why)

    def test_a_tensioner_or_a_slot_lets_go_of_them(self) -> None:
        tensioner = {"stage": AXLE, "tensioner": {"at": at(140, 30), "diameter": "20 mm"}}
        slot = {"shaft": AXLE, **SLOT}
        for fit in ({"shafts": list(self.FIXED), "loops": [tensioner]}, {"shafts": [self.FIXED[0], slot]}):
            self.assertNotIn("push both", built(fit)[f"{AXLE}:walk_on"].title)

    def test_a_clash_of_fit_holds_the_step_that_meets_it(self) -> None:
        fit = {"plate": PLATE, "shafts": [shaft(MOTOR, 12, 48), *self.FIXED]}
        steps = built(fit, **{"drive.stages.0.belt_teeth": 84})
        walked = steps[f"{AXLE}:walk_on"]
        self.assertRegex(walked.clashes[0], "belt of 84 teeth: too")
        self.assertTrue(steps["fit.plate:drill"].clashes, "nothing is drilled for what does not go together")
        wanted = conditions(list(steps.values()))[walked.id]
        now = datetime(2027, 5, 3)
        all_done = Done({id_: Tick(now, "", "") for id_ in steps if id_ != walked.id})
        self.assertEqual([held.step for held in held_back(wanted, all_done, now)], [""])


class Motors(unittest.TestCase):
    def test_screws_that_a_wheel_covers_are_locked_before_it_goes_on_or_with_it_drawn_aside(self) -> None:
        fixed = built({"plate": PLATE, "shafts": [shaft(MOTOR, 60, 48, bolts=BOLTS), shaft(JACK, 95.5, 48)]})
        self.assertIn("a drop of locker on each now: the 56-tooth gear covers them", fixed[f"{MOTOR}:mount"].title)
        slot = {"shaft": MOTOR, **SLOT, "bolts": BOLTS}
        moved = built({"plate": PLATE, "shafts": [slot, shaft(JACK, 110, 48)]})
        self.assertIn("draw the 56-tooth gear aside", moved[f"{JACK}:tighten"].title)

    def test_of_a_planetary_stack_come_last_and_its_sun_before_it_is_closed(self) -> None:
        steps = built(**{"drive.branches.0.stages": [{"kind": "planetary", "reductions": [4, 3]}]})
        ids = list(steps)
        order = [f"{MOTOR}:mount", *(f"{JACK}:{verb}" for verb in ("sun", "close", "tighten", "turn", "motor"))]
        self.assertEqual([id_ for id_ in ids if id_ in order], order)
        self.assertEqual(steps[f"{JACK}:motor"].closes, (f"{MOTOR}:bolts",))

    def test_a_nut_goes_only_where_a_screw_goes_through(self) -> None:
        steps = built(build={"locking": "lock nuts"})
        self.assertIn("lock washers", steps[f"{JACK}:tighten"].title)
        self.assertIn("lock nuts", steps[f"{AXLE}:bearings"].title)


class Clashes(unittest.TestCase):
    def test_are_met_on_every_unit_and_where_an_adapter_is_made(self) -> None:
        fixed = [shaft(MOTOR, 12, 48), shaft(JACK, 60, 48), shaft(AXLE, 220, 48)]
        narrow = {**ADAPTER, "outside": "61 mm"}
        fit = {"plate": PLATE, "shafts": fixed, "adapters": [narrow]}
        steps = built(fit, **{"drive.units": 2, "drive.stages.0.belt_teeth": 84})
        for place in (f"{AXLE}:walk_on", "fit.plate:drill", "fit.adapters[0]:make"):
            self.assertTrue(steps[place].clashes, place)
            self.assertEqual(steps[f"{place}@2"].clashes, steps[place].clashes)
        self.assertEqual(steps[f"{AXLE}:tension"].clashes, ())

    def test_nobody_has_said_where_anything_stands_without_a_fit_section(self) -> None:
        self.assertFalse([step for step in built().values() if step.clashes])


class Adapters(unittest.TestCase):
    def test_are_made_drilled_dowelled_screwed_on_and_joined(self) -> None:
        steps = built({"adapters": [ADAPTER]})
        verbs = ["template", "make", "drill", "dowel", "mount", "join"]
        self.assertEqual([id_ for id_ in steps if id_.startswith("fit.")], [f"fit.adapters[0]:{v}" for v in verbs])
        self.assertIn("Ream the 2 dowel holes", steps["fit.adapters[0]:dowel"].title)
        self.assertIn("stays free by 1 mm", steps["fit.adapters[0]:join"].title)


class Minutes(unittest.TestCase):
    def test_grow_with_the_holes_that_are_drilled(self) -> None:
        def drilling(*shafts: dict[str, Any]) -> float:
            return built({"plate": PLATE, "shafts": list(shafts)})["fit.plate:drill"].minutes

        bare, bored = shaft(MOTOR, 12, 48), shaft(MOTOR, 12, 48, opening="14 mm", bolts=BOLTS)
        self.assertEqual(drilling(bored) - drilling(bare), 5 * 4.0)
        slot = {"shaft": MOTOR, **SLOT, "opening": "14 mm"}
        self.assertEqual(drilling(slot) - drilling(bare), 15.0)

    def test_a_printer_works_alone(self) -> None:
        steps = built(**{"drive.branches.0.source.mount_material": "printed PETG"})
        printed = steps[f"{MOTOR}:print"]
        self.assertEqual((printed.minutes, printed.wait), (15.0, 6 * 3600.0))


class Slots(unittest.TestCase):
    def test_are_called_slots(self) -> None:
        motor = {"shaft": MOTOR, **SLOT, "bolts": BOLTS, "opening": "14 mm"}
        drill = built({"plate": PLATE, "shafts": [motor, shaft(AXLE, 200, 48, opening="28 mm")]})["fit.plate:drill"]
        self.assertIn(
            "to size: 28 mm; a hole at each end of every slot, sawn and filed between: 3.2 mm, 14 mm", drill.title
        )


class Words(unittest.TestCase):
    def test_speak_of_what_the_vehicle_has(self) -> None:
        bare = changed({"drive.units": 1})
        del bare["drive"]["branches"][0]["controller"]
        titles = {step.id: step.title for step in made(bare)}
        self.assertIn("0 V at every motor", titles["drive.supply:try_off"])
        self.assertIn("Join supply and motors", titles["drive.supply:leads"])
        self.assertIn("controller", {step.id: step.title for step in made(PLAIN)}["drive.supply:leads"])
