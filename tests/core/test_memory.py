"""What somebody has of an idea: levels go up and down, what is shaky comes again, time forgets."""

from __future__ import annotations

import json
from dataclasses import asdict
from datetime import UTC, datetime, timedelta
from unittest import TestCase

from ydrometer.practice.draw import LEVELS
from ydrometer.practice.kinds import IDEAS
from ydrometer.practice.memory import Memory, Went, after, grasp, next_idea, recalled

NOW = datetime(2026, 11, 29, 18, 0, tzinfo=UTC)


def course(*went: Went, apart: timedelta = timedelta(days=1)) -> tuple[Memory, datetime]:
    """After so many exercises, and when the last one was."""
    memory: Memory | None = None
    now = NOW
    for one in went:
        memory = after(memory, one, now)
        now += apart
    assert memory is not None
    return memory, now - apart


class Level(TestCase):
    def test_twice_well_in_a_row_is_the_next_one(self) -> None:
        for went, level in (
            (("well",), 1),
            (("well", "well"), 2),
            (("well", "with help", "well"), 1),
            (("well",) * 4, 3),
            (("well",) * 9, 3),
        ):
            with self.subTest(went):
                self.assertEqual(course(*went)[0].level, level)

    def test_twice_missed_is_the_one_before(self) -> None:
        self.assertEqual(course("well", "well", "missed")[0].level, 2)
        self.assertEqual(course("well", "well", "missed", "missed")[0].level, 1)
        self.assertEqual(course("missed", "missed", "missed")[0].level, LEVELS[0])

    def test_it_counts(self) -> None:
        memory, _ = course("missed", "with help", "well")
        self.assertEqual((memory.right, memory.wrong, memory.last), (2, 1, "well"))

    def test_it_is_kept_as_json_and_read_again(self) -> None:
        memory, _ = course("well", "missed")
        self.assertEqual(Memory(**json.loads(json.dumps(asdict(memory)))), memory)


class Grasp(TestCase):
    def test_new_shaky_sure_and_forgotten(self) -> None:
        self.assertEqual(grasp(None, NOW), "new")
        missed, at = course("missed")
        self.assertEqual(grasp(missed, at), "shaky")
        well, at = course("well", "well", "well", apart=timedelta(days=3))
        self.assertEqual(grasp(well, at), "sure")
        self.assertEqual(grasp(well, at + timedelta(days=900)), "shaky")
        self.assertLess(recalled(well, at + timedelta(days=900)), recalled(well, at + timedelta(days=9)))


class Next(TestCase):
    def test_first_what_is_new_in_its_order(self) -> None:
        self.assertEqual(next_idea({}, NOW), IDEAS[0])
        well, at = course("well", "well", apart=timedelta(minutes=20))
        self.assertEqual(next_idea({IDEAS[0]: well}, at), IDEAS[1])

    def test_what_was_missed_comes_again_when_it_is_due(self) -> None:
        missed, at = course("missed")
        known = {IDEAS[0]: missed}
        self.assertEqual(next_idea(known, at), IDEAS[1])
        self.assertEqual(next_idea(known, at + timedelta(minutes=30)), IDEAS[0])

    def test_of_all_that_is_known_the_shakiest(self) -> None:
        well, at = course("well", "well", "well", apart=timedelta(days=3))
        help_, _ = course("with help", "with help", "with help", apart=timedelta(days=3))
        known = dict.fromkeys(IDEAS, well) | {"fits": help_}
        self.assertEqual(next_idea(known, at + timedelta(days=400)), "fits")
