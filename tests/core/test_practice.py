"""Exercises: right by another way, mistakes far enough apart, sizes of real vehicles, answers judged by name."""

from __future__ import annotations

import json
import math
from collections import Counter
from typing import TYPE_CHECKING, Any
from unittest import TestCase

from tests.core.exercise_oracles import ORACLES, Told
from ydrometer.base.errors import DocumentError
from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.files.practice_sheet import sheet_html
from ydrometer.practice import IDEAS, KINDS, Exercise, exercise, judge
from ydrometer.practice.mistakes import MISTAKES
from ydrometer.practice.posed import APART, ChoiceAsked, NumberAsked, PicksAsked
from ydrometer.practice.report import answered, given, kinds, report
from ydrometer.screens.practised import exercise_shown

Base: Any = TestCase if TYPE_CHECKING else object
SEEDS = 2000
SYSTEMS = ("metric", "inch")
RANGES = {
    "speed": (0.05, 600.0), "angular speed": (5.0, 8000.0), "length": (0.005, 8.0), "force": (1.0, 2000.0),
    "torque": (0.02, 400.0), "voltage": (1.0, 60.0), "current": (5.0, 800.0), "power": (10.0, 3000.0),
    "resistance": (1e-4, 1.0), "charge": (3600.0, 200_000.0), "ratio": (0.05, 2500.0),
}  # fmt: skip
"""What answers may be, SI: figures of hobby vehicles."""


def drawn(kind: str, seed: int) -> Exercise:
    """All levels and units by turns."""
    return exercise(kind, seed % 3 + 1, seed, SYSTEMS[seed // 3 % 2])


class Drawn(Base):  # type: ignore[misc]  # a test where it is mixed into one
    """Over two thousand seeds a kind; in two classes, which run side by side."""

    turn: int

    def test_every_kind(self) -> None:
        for kind in list(KINDS)[self.turn :: 2]:
            with self.subTest(kind):
                answers: Counter[Any] = Counter()
                for seed in range(SEEDS):
                    drawn_exercise = drawn(kind, seed)
                    self.check(drawn_exercise)
                    answers[str(drawn_exercise.posed.answer)] += 1
                # Whoever always says the same is not right by it.
                self.assertLess(max(answers.values()), 0.85 * SEEDS)

    def check(self, drawn_exercise: Exercise) -> None:
        told, posed = Told(given(drawn_exercise)), drawn_exercise.posed
        if drawn_exercise.kind != "find_mistake":
            self.assert_same(drawn_exercise, ORACLES[drawn_exercise.kind](told))
        if isinstance(posed.ask, NumberAsked):
            self.check_numbers(drawn_exercise, posed.ask.dimension)
        else:
            self.assertNotIn(posed.answer, [mistake.answer for mistake in posed.mistakes])
        self.assertTrue(all(hint and hint.endswith((".", "?")) for hint in posed.hints), posed.hints)
        self.assertTrue(posed.words.endswith(("?", ".")) and "  " not in posed.words, posed.words)
        self.assertNotRegex(posed.words, r"(?<![.\d])1 (turns|times|cells|teeth)\b")

    def assert_same(self, drawn_exercise: Exercise, wanted: Any) -> None:
        posed = drawn_exercise.posed
        if isinstance(posed.ask, PicksAsked):
            self.assertIsInstance(posed.answer, tuple)
            picks: Any = posed.answer
            come_to = math.prod(picks[k + 1] / picks[k] for k in range(0, len(picks), 2))
            self.assertAlmostEqual(come_to, wanted, places=9, msg=posed.words)
            self.assertTrue(set(picks) <= set(posed.ask.bag) and len(set(picks)) == len(picks))
        elif (
            isinstance(posed.ask, NumberAsked)
            and drawn_exercise.kind == "centres"
            and posed.sheet.known["c"] < wanted * 0.99
        ):
            ring = (posed.sheet.known["b"] - posed.sheet.known["a"]) * posed.sheet.known["m"] / 2
            self.assertAlmostEqual(posed.sheet.known["c"], ring)
        elif isinstance(posed.ask, NumberAsked):
            self.assertLess(abs(float(str(posed.answer)) - wanted), 1e-3 * abs(wanted), posed.words)
        else:
            self.assertEqual(posed.answer, wanted, posed.words)

    def check_numbers(self, drawn_exercise: Exercise, dimension: str) -> None:
        posed = drawn_exercise.posed
        numbers = [float(str(posed.answer)), *(float(str(mistake.answer)) for mistake in posed.mistakes)]
        self.assertEqual(len({mistake.name for mistake in posed.mistakes}), len(posed.mistakes))
        for k, one in enumerate(numbers):
            for other in numbers[:k]:
                self.assertGreater(abs(one - other), APART * max(abs(one), abs(other)), posed.words)
        low, high = RANGES[dimension]
        self.assertTrue(low <= numbers[0] <= high, (posed.words, numbers[0]))
        self.assertAlmostEqual(posed.sheet.steps[-1].value / numbers[0], 1.0, places=3, msg=posed.words)


class DrawnFirst(Drawn, TestCase):
    turn = 0


class DrawnSecond(Drawn, TestCase):
    turn = 1


class Whole(TestCase):
    """What is printed and drawn."""

    def test_all_ideas_have_kinds_and_all_kinds_print(self) -> None:
        self.assertEqual(len(IDEAS), 17)
        self.assertEqual({kind.idea for kind in KINDS.values()}, set(IDEAS))
        self.assertEqual([row["kind"] for row in kinds()["kinds"]], list(KINDS))
        for kind in KINDS:
            for level in (1, 2, 3):
                with self.subTest(kind, level=level):
                    reported = report(exercise(kind, level, 7, "inch"))
                    again = report(exercise(kind, level, 7, "inch"))
                    self.assertEqual(json.dumps(reported, allow_nan=False), json.dumps(again, allow_nan=False))
                    self.assertEqual(len(reported["hints"]), 3)
                    self.assertTrue(reported["mistakes"] and reported["given"] and reported["drawing"]["rows"])
                    self.assertTrue({mistake["name"] for mistake in reported["mistakes"]} <= MISTAKES.keys())

    def test_seeds_levels_and_units_make_other_ones(self) -> None:
        words = {
            exercise("road_speed", level, seed, units).posed.words
            for level in (1, 2, 3)
            for seed in range(5)
            for units in SYSTEMS
        }
        self.assertEqual(len(words), 30)
        self.assertIn(" in ", exercise("rim_force", 2, 3, "inch").posed.words)

    def test_a_drawing_does_not_say_which_way_it_turns_where_that_is_asked(self) -> None:
        line = exercise("last_wheel", 3, 1).drawing()
        self.assertEqual({shaft.rotation for row in line.rows for shaft in row.shafts}, {0})
        first, *others = [wheel.rotation for row in line.rows for wheel in row.wheels]
        self.assertEqual((abs(first), set(others)), (1, {0}))  # the first one's is told

    def test_an_arrow_is_marked_around_the_last_wheel(self) -> None:
        for level in (1, 2, 3):
            shown_exercise = exercise_shown(exercise("last_wheel", level, 5))
            last = shown_exercise.drawing.rows[-1].wheels[-1]
            self.assertEqual(
                (shown_exercise.ask.kind, shown_exercise.ask.around), ("arrow", f"{last.path} {last.member}")
            )

    def test_holes_are_drawn_on_their_plate_and_what_is_driven_only_once_it_is_solved(self) -> None:
        for seed in range(30):
            drawn_exercise = drawn("on_holes", seed)
            shown, whole = exercise_shown(drawn_exercise), drawn_exercise.plate(whole=True)
            assert shown.plate and shown.plate.plate and whole
            self.assertEqual((len(shown.plate.wheels), len(whole.wheels)), (1, 2))
            right = next(choice.hole for choice in shown.ask.choices if choice.key == drawn_exercise.posed.answer)
            assert right
            driven = whole.wheels[1]
            self.assertAlmostEqual(right.x, driven.x)
            self.assertAlmostEqual(right.y, driven.y)
            plate, home = shown.plate.plate, shown.plate.shafts[0]
            ask = drawn_exercise.posed.ask
            assert isinstance(ask, ChoiceAsked)
            for choice, (across, up) in zip(shown.ask.choices, ask.holes, strict=True):
                assert choice.hole
                self.assertAlmostEqual(choice.hole.x - home.x, across * plate.hole_pitch)
                self.assertAlmostEqual(choice.hole.y - home.y, up * plate.hole_pitch)
                self.assertLess(choice.hole.x, plate.across * plate.hole_pitch)
                self.assertLess(choice.hole.y, plate.up * plate.hole_pitch)
            self.assertIn(
                ">d</text>" if len(shown.ask.choices) == 4 else ">c</text>", sheet_html("Holes", [drawn_exercise])
            )
        self.assertIn("plate", report(drawn_exercise))

    def test_what_is_not_there_is_told(self) -> None:
        with self.assertRaises(DocumentError) as raised:
            exercise("knots", 4, 0, "cubits")
        self.assertEqual([fault.path for fault in raised.exception.faults], ["kind", "level", "units"])


class Judged(TestCase):
    def test_right_early_by_name_and_wrong(self) -> None:
        drawn_exercise = exercise("ratio", 2, 7)
        right, (turned, *_) = float(str(drawn_exercise.posed.answer)), drawn_exercise.posed.mistakes
        for typed, verdict, name in (
            (f"{right:.4g}", "right", ""),
            (f" {right * 1.02:.5g}", "rounded early", ""),
            (f"{float(str(turned.answer)):.4g}", "mistake", "ratio turned over"),
            (f"{right * 1.2:.5g}", "wrong", ""),
        ):
            with self.subTest(typed):
                found = judge(drawn_exercise, typed)
                self.assertEqual((found.verdict, found.mistake), (verdict, name))
                self.assertTrue(found.words)

    def test_any_unit_is_taken(self) -> None:
        drawn_exercise = exercise("road_speed", 1, 3)
        speed = float(str(drawn_exercise.posed.answer))
        for typed in (f"{speed:.4g}", f"{speed:.4g} m/s", f"{3.6 * speed:.4g} km/h", f"{speed / 0.44704:.4g} mph"):
            self.assertEqual(judge(drawn_exercise, typed).verdict, "right", typed)

    def test_every_mistake_is_known_by_its_name_and_every_answer_is_right(self) -> None:
        for kind in KINDS:
            for seed in range(6):
                drawn_exercise = drawn(kind, seed)
                ask = drawn_exercise.posed.ask
                with self.subTest(kind, seed=seed):
                    self.assertEqual(
                        judge(drawn_exercise, self.typed(drawn_exercise, drawn_exercise.posed.answer)).verdict, "right"
                    )
                    for mistake in drawn_exercise.posed.mistakes:
                        verdict = judge(drawn_exercise, self.typed(drawn_exercise, mistake.answer))
                        self.assertEqual((verdict.verdict, verdict.mistake), ("mistake", mistake.name))
                    self.assertTrue(answered(ask, drawn_exercise.posed.answer))

    def typed(self, drawn_exercise: Exercise, answer: Any) -> Any:
        """As a learner would give it."""
        if isinstance(drawn_exercise.posed.ask, NumberAsked):
            return f"{answer:.6g} {DIMENSIONS[drawn_exercise.posed.ask.dimension].si}"
        return list(answer) if isinstance(answer, tuple) else answer

    def test_other_wheels_that_come_to_the_same_are_as_right(self) -> None:
        drawn_exercise = exercise("bag_two_pairs", 2, 5)
        picks: Any = drawn_exercise.posed.answer
        a, b, c, e = picks
        self.assertEqual(judge(drawn_exercise, [c, b, a, e]).verdict, "right")
        self.assertEqual(judge(drawn_exercise, [b, a, c, e]).verdict, "wrong")

    def test_what_is_no_answer_is_told(self) -> None:
        number, choice, picks = (exercise(kind, 1, 1) for kind in ("rim_force", "taller", "bag_pair"))
        bag: Any = picks.posed.ask
        one = bag.bag[0]
        for made, answer, words in (
            (number, "", "missing"),
            (number, "three", "not a number"),
            (number, "3 kg*s", "unit"),
            (number, None, "missing"),
            (choice, "C", "not one of the choices"),
            (choice, ["A"], "not one of"),
            (picks, [one], "1 wheels picked"),
            (picks, [999, one], "not in the bag"),
            (picks, [one] * 2, "not in the bag"),
            (picks, "ab", "0 wheels"),
        ):
            with self.subTest(words, answer=answer), self.assertRaises(DocumentError) as raised:
                judge(made, answer)
            self.assertIn(words, str(raised.exception))
