"""Which options do the same, and what a group of them costs."""

from types import SimpleNamespace
from typing import Any
from unittest import TestCase, mock

from ydrometer.search import groups
from ydrometer.search.groups import SAME


class Agreeing(TestCase):
    def test_figures_agree_by_their_larger_one(self) -> None:
        near = 1.0 + SAME * (1.0 + 0.5 * SAME)
        for first, second, same in (
            ([1.0, None], [near, None], True),
            ([near], [1.0], True),
            ([-1.0], [-near], True),
            ([1.0], [1.0 + 1.1 * SAME], False),
            ([None], [1.0], False),
            ([0.0], [0.0], True),
        ):
            self.assertEqual(groups._agree(first, second), same, (first, second))


class Price(TestCase):
    def group(self, *ways: Any) -> groups.Group:
        leads: list[Any] = [SimpleNamespace(ways=way, entries=((None, SimpleNamespace(price=9.0)),)) for way in ways]
        with mock.patch.multiple(groups, _preferred=lambda *_: 0, _places=lambda *_: 0):
            return groups._group([], leads, None)  # type: ignore[arg-type]  # no plate is asked

    def test_is_that_of_the_cheapest_way_and_ways_add_up(self) -> None:
        group = self.group(
            SimpleNamespace(count=3, from_bin=1, price=7.5), SimpleNamespace(count=4, from_bin=2, price=6.0), None
        )
        self.assertEqual((group.count, group.from_bin, group.price), (7, 3, 6.0))

    def test_of_ways_that_nobody_counted_it_is_the_first_options(self) -> None:
        group = self.group(None)
        self.assertEqual((group.count, group.from_bin, group.price), (None, 0, 9.0))
