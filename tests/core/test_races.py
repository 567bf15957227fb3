"""Races: everybody meets everybody once, a knockout ends with one, and the table tells it."""

from __future__ import annotations

from itertools import combinations
from random import Random
from typing import Any
from unittest import TestCase

from ydrometer.base.errors import DocumentError
from ydrometer.practice.races import Board, next_heat, read, standings


def board(count: int, *heats: dict[str, Any], **more: Any) -> dict[str, Any]:
    entries = [{"id": f"e{k}", "name": f"Team {k}"} for k in range(count)]
    return {
        "format": "ydrometer-race",
        "version": 1,
        "name": "Corridor",
        "distance": "12 m",
        "lanes": 2,
        "mode": "everyone",
        "entries": entries,
        "heats": list(heats),
        **more,
    }


def run_all(raw: dict[str, Any], seed: int = 1) -> tuple[Board, int]:
    """Run heat after heat, the lower number a little faster, until it is over."""
    random = Random(seed)
    for count in range(5000):
        found = next_heat(read(raw))
        if found is None:
            return read(raw), count
        times = [f"{3 + 0.01 * int(entry[1:]) + 0.001 * random.random():.4f} s" for entry in found.entries]
        raw["heats"].append({"round": found.round, "entries": found.entries, "times": times})
    raise AssertionError("it never ends")


class Everyone(TestCase):
    def test_all_meet_once_and_none_waits_long(self) -> None:
        for count, lanes in ((2, 2), (5, 2), (8, 2), (9, 3), (12, 4)):
            with self.subTest(count, lanes=lanes):
                done, heats = run_all(board(count, lanes=lanes))
                met = [frozenset(pair) for heat in done.heats for pair in combinations(heat.entries, 2)]
                self.assertEqual(set(met), {frozenset(pair) for pair in combinations([e.id for e in done.entries], 2)})
                if lanes == 2:
                    self.assertEqual((heats, len(met)), (count * (count - 1) // 2, len(set(met))))
                runs = [place.runs for place in standings(done)]
                self.assertLessEqual(max(runs) - min(runs), lanes)
                self.assertEqual(standings(done)[0].entry, "e0")

    def test_one_lane_is_one_run_each(self) -> None:
        done, heats = run_all(board(4, lanes=1))
        self.assertEqual(heats, 4)
        self.assertEqual(done.heats[-1].entries, ("e3",))

    def test_nobody_entered_or_alone(self) -> None:
        self.assertIsNone(next_heat(read(board(0))))
        self.assertIsNone(next_heat(read(board(1))))
        self.assertEqual(standings(read(board(1)))[0].best, None)


class Knockout(TestCase):
    def test_it_ends_with_the_fastest(self) -> None:
        for count, lanes in ((2, 2), (3, 2), (7, 2), (8, 2), (9, 4), (64, 8)):
            with self.subTest(count, lanes=lanes):
                done, _ = run_all(board(count, lanes=lanes, mode="knockout"))
                table = standings(done)
                self.assertEqual((table[0].entry, table[0].out), ("e0", False))
                self.assertTrue(all(place.out for place in table[1:]))
                self.assertEqual([place.place for place in table], list(range(1, count + 1)))

    def test_a_heat_that_is_run_again_counts_as_it_ended_last(self) -> None:
        first = {"round": 1, "entries": ["e0", "e1"], "times": ["3 s", "4 s"]}
        raw = board(2, first, {**first, "times": [None, "4 s"]}, mode="knockout")
        self.assertEqual(standings(read(raw))[0].entry, "e1")
        self.assertIsNone(next_heat(read(raw)))

    def test_who_waits_is_not_out(self) -> None:
        raw = board(4, {"round": 1, "entries": ["e0", "e1"], "times": ["3 s", "4 s"]}, mode="knockout")
        self.assertEqual(
            {p.entry: p.out for p in standings(read(raw))}, {"e0": False, "e1": True, "e2": False, "e3": False}
        )
        self.assertEqual(next_heat(read(raw)).entries, ["e2", "e3"])  # type: ignore[union-attr]


class Faults(TestCase):
    def test_what_is_wrong_is_told_with_its_path(self) -> None:
        heat = {"round": 1, "entries": ["e0", "e1"], "times": ["3 s", None]}
        for raw, path in (
            (board(2, {**heat, "times": ["3 s"]}), "heats[0].times"),
            (board(2, {**heat, "times": [None, None]}), "heats[0].times"),
            (board(2, {**heat, "entries": ["e0", "e9"]}), "heats[0].entries"),
            (board(2, lanes=1, mode="knockout"), "lanes"),
            (board(2, mode="relay"), "mode"),
            (board(2, lanes=9), "lanes"),
            (board(0, entries=[{"id": "a", "name": "x"}] * 2), "entries"),
            (board(2, distance="none"), "distance"),
            (board(0, entries=[{"id": "a", "name": " "}]), "entries[0].name"),
            ({}, "format"),
        ):
            with self.subTest(path), self.assertRaises(DocumentError) as raised:
                read(raw)
            self.assertIn(path, [fault.path for fault in raised.exception.faults])
