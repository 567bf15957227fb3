"""From a bag of wheels: the pair, or the two pairs, that come nearest to a wanted ratio."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import permutations

from ydrometer.practice import rigs
from ydrometer.practice.draw import Again, Draw
from ydrometer.practice.posed import Mistake, PicksAsked, Posed, Sum, known
from ydrometer.practice.rigs import gears, rig

PAIR = ("driver", "driven wheel")
TWO_PAIRS = ("first driver", "first driven wheel", "second driver", "second driven wheel")
CLEARLY = 1.02
"""How many times as far off as the nearest the next one has to be."""


def comes_to(picks: Sequence[int]) -> float:
    """Overall ratio of picked wheels, driver and driven in turn."""
    return math.prod(rigs.ratio(a, b) for a, b in zip(picks[::2], picks[1::2], strict=True))


def _nearest(bag: Sequence[int], wanted: float, count: int) -> tuple[int, ...]:
    """The picks that come nearest to what is wanted, the first of those that come to the same.

    Raises:
        Again: others come nearly as near.
    """
    best: dict[float, tuple[int, ...]] = {}
    ratio = {(a, b): rigs.ratio(a, b) for a, b in permutations(sorted(set(bag)), 2)}
    for picks in permutations(bag, count):
        total = 1.0
        for pair in zip(picks[::2], picks[1::2], strict=True):
            total *= ratio[pair]
        best.setdefault(round(total, 9), picks)
    first, second = sorted(best, key=lambda total: abs(total - wanted))[:2]
    if abs(second - wanted) < CLEARLY * abs(first - wanted) + 0.01 * wanted:
        raise Again
    return best[first]


def _bag(d: Draw, wanted: Sequence[int], size: int) -> tuple[int, ...]:
    """A bag with these wheels among others, all different, in order."""
    others = [teeth for teeth in range(10, 61, 1 if d.level == 3 else 2) if teeth not in wanted]
    return tuple(sorted([*wanted, *d.some(others, size - len(wanted))]))


def _posed(d: Draw, words: str, bag: tuple[int, ...], wanted: float, picks: tuple[int, ...]) -> Posed:
    places = PAIR if len(picks) == 2 else TWO_PAIRS
    s = Sum()
    s.given("G", "ratio wanted", wanted)
    symbols = ("a", "b") if len(picks) == 2 else ("a", "b", "c", "e")
    for symbol, place, teeth in zip(symbols, places, picks, strict=True):
        s.sheet.put(symbol, f"teeth of the {place}", teeth, "ratio", "solved")
    s.step("i", "what they come to", "b/a" if len(picks) == 2 else "b/a*e/c")
    turned = tuple(teeth for pair in zip(picks[1::2], picks[::2], strict=True) for teeth in pair)
    hints = (
        "Ratio: teeth of the driven wheel by teeth of the driver.",
        "Take a driver and multiply its teeth by what is wanted: is there such a wheel, or one near it?"
        if len(picks) == 2
        else "What must the second pair do once the first is chosen?",
        f"Begin with the driver of {picks[0]} teeth.",
    )
    stages = [gears(a, b) for a, b in zip(picks[::2], picks[1::2], strict=True)]
    ask = PicksAsked(places, bag, comes_to)
    mistakes = (Mistake(turned, "ratio turned over"),)
    return Posed(
        words,
        ask,
        picks,
        known(mistakes),
        hints,
        "ratio = product of driven teeth / driver teeth",
        s.sheet,
        rig(stages),
        {"bag": list(bag)},
    )


def bag_pair(d: Draw) -> Posed:
    """The pair of a bag nearest to a wanted ratio."""
    a, b = d.whole(10, 20), d.whole(30, 60)
    bag = _bag(d, (a, b), 5 if d.level == 1 else 7)
    wanted = round(b / a, 2) if d.level == 1 else round(b / a * d.number(0.98, 1.02, 0.01), 1)
    words = (
        f"In the bag are gears with {_listed(bag)} teeth. Which two come nearest to {wanted:g} turns of the driver for "
        "one turn of the driven gear?"
    )
    return _posed(d, words, bag, wanted, _nearest(bag, wanted, 2))


def bag_two_pairs(d: Draw) -> Posed:
    """Two pairs of a bag, one behind the other, nearest to a wanted ratio."""
    teeth = [d.whole(10, 16), d.whole(30, 48), d.whole(17, 22), d.whole(49, 60)]
    bag = _bag(d, teeth, 5 if d.level == 1 else 6)
    total = teeth[1] / teeth[0] * teeth[3] / teeth[2]
    wanted = round(total, 2) if d.level == 1 else round(total, 1)
    words = (
        f"In the bag are gears with {_listed(bag)} teeth, one of each. Build two pairs, one behind the other, "
        "that come "
        f"nearest to {wanted:g} turns of the first driver for one turn of the last gear."
    )
    return _posed(d, words, bag, wanted, _nearest(bag, wanted, 4))


COMMON = (12, 15, 16, 18, 20, 24, 30, 32, 36, 40, 45, 48, 50, 60)


def rare_wheel(d: Draw) -> Posed:
    """Two pairs of common wheels in the place of a pair with a rare one."""
    wheels = d.some(COMMON, 4)
    a, b, c, e = sorted(wheels)[0], sorted(wheels)[2], sorted(wheels)[1], sorted(wheels)[3]
    total = b / a * e / c
    small = d.choice((12, 14, 16) if d.level < 3 else (11, 13, 17))
    rare = round(small * total)
    if not 40 <= rare <= 160 or abs(rare / small - total) > 1e-9 or rare in COMMON:
        raise Again
    others = [teeth for teeth in COMMON if teeth not in wheels]
    bag = tuple(sorted([*wheels, *d.some(others, d.level)]))
    picks = _nearest(bag, total, 4)
    words = (
        f"The drawing asks for {small} on {rare} teeth, but nobody sells a gear with {rare}. In the bag are gears with "
        f"{_listed(bag)} teeth, one of each. Which two pairs, one behind the other, give the same ratio?"
    )
    return _posed(d, words, bag, total, picks)


def _listed(bag: Sequence[int]) -> str:
    return f"{', '.join(map(str, bag[:-1]))} and {bag[-1]}"
