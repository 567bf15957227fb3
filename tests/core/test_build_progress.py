import unittest
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any

from tests.answers import MOUNTED
from tests.core.designs import changed
from ydrometer.build.progress import Done, Tick, conditions, held_back, ledger, ready, rechecks, touched
from ydrometer.build.progress import Held as Reason
from ydrometer.build.step import Step
from ydrometer.build.steps import steps_of
from ydrometer.build.workshop import BuildShop, workshop
from ydrometer.document import design


def shop(document: dict[str, Any]) -> BuildShop:
    return workshop(design.read(document))


AT = datetime(2027, 5, 3, 18)
STEPS = steps_of(shop(changed({"drive.units": 1})))
BY_ID = {step.id: step for step in STEPS}
BORED = {"fit": {"shafts": [{"shaft": "drive.stages[0]", "mount": "free", "opening": "22 mm"}]}}
GLUED = steps_of(shop(changed({**BORED, "drive.units": 1})))
"""Steps of a design whose bearings are glued in."""
GEARS = "drive.branches[0].stages[0]"
MOTOR = "drive.branches[0].source"


def ticked(*ids: str, steps: list[Step] = STEPS) -> dict[str, Tick]:
    return {step.id: Tick(AT, step.about, step.title, step.made_from) for step in steps if step.id in ids}


def up_to(last: str) -> list[str]:
    ids = [step.id for step in STEPS]
    return ids[: ids.index(last) + 1]


class Ledger(unittest.TestCase):
    def test_names_what_is_loose_and_who_closes_it(self) -> None:
        found = ledger(STEPS, {f"{MOTOR}:mount"})
        self.assertEqual(
            [(entry.words, entry.closed_by) for entry in found], [("motor mount bolts", f"{GEARS}:tighten")]
        )

    def test_is_empty_when_all_is_done(self) -> None:
        self.assertEqual(ledger(STEPS, BY_ID), [])


def held(step: str, *done: str, steps: list[Step] = STEPS, after: timedelta = timedelta(days=2)) -> list[Reason]:
    return held_back(conditions(steps)[step], Done(ticked(*done, steps=steps)), AT + after)


class Held(unittest.TestCase):
    def test_power_waits_for_what_is_loose(self) -> None:
        reasons = held("vehicle:spin", *(set(BY_ID) - {f"{GEARS}:tighten"}))
        self.assertEqual([entry.words for entry in reasons], ["loose: motor mount bolts"])

    def test_what_nobody_has_opened_is_not_loose(self) -> None:
        for reason in held("vehicle:spin"):
            self.assertNotIn("loose", reason.words)

    def test_a_step_waits_for_what_it_needs(self) -> None:
        reasons = held(f"{GEARS}:play", *up_to(f"{GEARS}:mesh"))
        self.assertEqual((reasons[0].step, reasons[0].until), (f"{GEARS}:line_up", None))

    def test_nothing_is_buried_before_it_is_done(self) -> None:
        steps = steps_of(shop(changed({"drive.stages": [{"kind": "planetary", "reductions": [4]}]})))
        reasons = held("drive.stages[0]:close", steps=steps)
        self.assertIn("it buries this, which is not done: Grease", reasons[0].words)

    def test_a_signature_asks_for_an_empty_ledger(self) -> None:
        self.assertTrue(held("vehicle:sign_off", *(set(BY_ID) - {f"{GEARS}:tighten", "vehicle:sign_off"})))

    def test_what_cures_holds_until_it_has_cured(self) -> None:
        done = ("fit:mark_out", "drive.stages[0]:try", "drive.stages[0]:bearings")
        (reason,) = held("drive.stages[0]:stack", *done, steps=GLUED, after=timedelta(hours=23.9))
        self.assertEqual((reason.step, reason.until), ("drive.stages[0]:bearings", AT + timedelta(hours=24)))
        self.assertIn("not over yet: Glue the bearings", reason.words)
        self.assertEqual(held("drive.stages[0]:stack", *done, steps=GLUED, after=timedelta(hours=24)), [])

    def test_a_clock_that_was_ahead_makes_nobody_wait(self) -> None:
        self.assertEqual(held(f"{GEARS}:play", *up_to(f"{GEARS}:line_up"), after=-timedelta(minutes=5)), [])

    def test_an_hour_of_running_takes_an_hour(self) -> None:
        for step, before, wait in (("5_min", "first_run", 5), ("1_h", "recheck_5_min", 55)):
            done = set(BY_ID) - {f"vehicle:recheck_{step}"}
            (reason,) = held(f"vehicle:recheck_{step}", *done, after=timedelta(minutes=wait - 1))
            self.assertEqual((reason.step, reason.until), (f"vehicle:{before}", AT + timedelta(minutes=wait)))


class Ready(unittest.TestCase):
    def test_what_waits_comes_last(self) -> None:
        done = Done(ticked("fit:mark_out", "drive.stages[0]:try", "drive.stages[0]:bearings", steps=GLUED))
        wanted = conditions(GLUED)
        now = AT + timedelta(hours=1)
        next_steps = ready(wanted, done, now)
        self.assertEqual(held_back(wanted[next_steps[0]], done, now), [])
        self.assertEqual(next_steps[-1], "drive.stages[0]:stack")


def why(document: dict[str, Any], done: dict[str, Tick], opened: dict[str, datetime] | None = None) -> dict[str, str]:
    """What a design says of steps that were done for another one."""
    return {entry.step: entry.why for entry in touched(steps_of(shop(document)), done, opened or {})}


class ChangedDesign(unittest.TestCase):
    def test_says_for_what_a_step_was_done_and_what_has_to_be_opened(self) -> None:
        done = ticked(*up_to(f"{GEARS}:tighten"))
        now = steps_of(shop(changed({"drive.units": 1, "drive.branches.0.stages.0.driver_teeth": 17})))
        rows = {entry.step: entry for entry in touched(now, done, {})}
        self.assertEqual(
            rows[f"{MOTOR}:wheel"].why, "Done for 15-tooth gear, module 1 mm; now 17-tooth gear, module 1 mm"
        )
        self.assertEqual(rows[f"{GEARS}:mesh"].again[0], f"{GEARS}:tighten")
        self.assertIn(f"{GEARS}:play", rows, "its numbers are the same, and it has to be set again")
        self.assertNotIn(f"{GEARS}:bearings", rows)
        self.assertNotIn(f"{GEARS}:stack", rows, "its wheels are the same")

    def test_an_unrelated_change_touches_nothing(self) -> None:
        self.assertEqual(why(changed({"drive.units": 1, "name": "Other"}), ticked(*BY_ID)), {})

    def test_a_second_unit_is_no_change_of_the_first(self) -> None:
        alone = ticked(*(id_ for id_ in BY_ID if not id_.startswith(("vehicle", "drive.supply"))))
        self.assertEqual(why(changed({"drive.units": 2}), alone), {})

    def test_a_drilled_plate_whose_axle_moved_is_told(self) -> None:
        plated = {**MOUNTED, "drive": {**MOUNTED["drive"], "units": 1}}
        steps = steps_of(shop(plated))
        moved = changed({"fit.shafts.2.at": ["276 mm", "48 mm"]}, plated)
        told = why(moved, ticked(*(step.id for step in steps), steps=steps))
        self.assertEqual(told["fit.plate:drill"], "Done for axle at 264, 48 mm; now axle at 276, 48 mm")
        self.assertIn("drive.stages[0]:bearings", told)
        self.assertIn("drive.stages[0]:tension", told)
        self.assertNotIn("drive.stages[0]:stack", told, "what is on it stays")

    def test_each_number_that_something_is_made_from_is_compared(self) -> None:
        plated = {**MOUNTED, "drive": {**MOUNTED["drive"], "units": 1}}
        steps = steps_of(shop(plated))
        done = ticked(*(step.id for step in steps), steps=steps)
        for changes, step in (
            ({"fit.plate.thickness": "4 mm"}, "fit.plate:drill"),
            ({"fit.plate.hole": "6 mm"}, "fit.plate:drill"),
            ({"fit.shafts.1.opening": "22 mm"}, f"{GEARS}:bearings"),
            ({"fit.shafts.1.diameter": "10 mm"}, f"{GEARS}:try"),
            ({"drive.stages.0.belt_teeth": 90}, "drive.stages[0]:walk_on"),
            ({"drive.stages.0.width": "25 mm"}, "drive.stages[0]:try"),
            ({"drive.supply.open_circuit_voltage": "22.2 V"}, "drive.supply:charge"),
            ({"vehicle.wheel_diameter": "150 mm"}, "vehicle:road_wheels"),
            ({"drive.branches.0.controller.current_limit": "30 A"}, "drive.branches[0].controller:set"),
        ):
            self.assertIn(step, why(changed(changes, plated), done), changes)

    def test_after_a_change_locker_look_over_first_run_and_signature_come_again(self) -> None:
        told = why(changed({"drive.units": 1, "drive.branches.0.stages.0.driver_teeth": 17}), ticked(*BY_ID))
        for step in ("locker", "look_over", "first_run", "recheck_5_min", "recheck_1_h", "sign_off"):
            self.assertIn("The design has changed since, at ", told[f"vehicle:{step}"])
        self.assertNotIn("drive.supply:fuse", told)

    def test_what_stands_on_a_step_that_was_opened_again_is_told(self) -> None:
        later = AT + timedelta(hours=1)
        told = why(changed({"drive.units": 1}), ticked(*BY_ID), {f"{GEARS}:line_up": later})
        self.assertEqual(told[f"{GEARS}:tighten"], f"Opened again since: “{BY_ID[f'{GEARS}:line_up'].title}”")
        self.assertIn("vehicle:sign_off", told)
        self.assertNotIn(f"{GEARS}:line_up", told)
        self.assertNotIn(f"{GEARS}:mesh", told)

    def test_of_a_tick_without_its_numbers_parts_and_title_are_compared(self) -> None:
        old = {id_: Tick(AT, BY_ID[id_].about, BY_ID[id_].title) for id_ in BY_ID}
        self.assertEqual(why(changed({"drive.units": 1}), old), {})
        old[f"{GEARS}:play"] = replace(old[f"{GEARS}:play"], title="Set the play: 0.1 mm")
        self.assertIn("Set the play: 0.1 mm", why(changed({"drive.units": 1}), old)[f"{GEARS}:play"])


class Rechecks(unittest.TestCase):
    def test_are_all_that_was_closed_and_every_setting(self) -> None:
        words = [what for _, what in rechecks(STEPS)]
        self.assertIn("motor mount bolts", words)
        self.assertIn("play at the pitch circle (15-tooth gear, 56-tooth gear)", words)
        self.assertEqual(len({id_ for step in STEPS for id_ in step.closes}) <= len(words), True)
