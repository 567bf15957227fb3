"""What a kind poses: a question with its answer, the usual mistakes, three hints, the working, and a design to draw."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any

from ydrometer.practice.draw import Again, Draw
from ydrometer.practice.mistakes import MISTAKES
from ydrometer.working.sheet import Sheet, evaluate

Answer = float | str | tuple[int, ...]
"""A number, SI; the key of a choice or of a wheel; or teeth of wheels picked from a bag."""


def number_of(answer: Answer) -> float:
    """An answer that is a number."""
    assert isinstance(answer, float | int)  # else something else was asked for
    return float(answer)


APART = 0.03
"""Relative distance that numbers of answers and mistakes keep from each other."""


@dataclass(frozen=True, slots=True)
class Choice:
    """One answer to choose from."""

    key: str
    words: str


@dataclass(frozen=True, slots=True)
class NumberAsked:
    """A number of some dimension, shown in a unit; any unit is taken."""

    dimension: str
    unit: str


@dataclass(frozen=True, slots=True)
class ChoiceAsked:
    """One of some answers.

    Attributes:
        choices: of which one is right.
        around: where they are senses of turning, the wheel around which they are marked, by path and member.
        holes: where they are places on a plate, how far across and up each is from the driver, in holes.
    """

    choices: tuple[Choice, ...]
    around: str = ""
    holes: tuple[tuple[int, int], ...] = ()


@dataclass(frozen=True, slots=True)
class WheelAsked:
    """A wheel to be clicked in the drawing, one of these by path and member."""

    choices: tuple[Choice, ...]


@dataclass(frozen=True, slots=True)
class PicksAsked:
    """Wheels picked from the bag, each once: one for each of these places, in their order."""

    places: tuple[str, ...]
    bag: tuple[int, ...]
    ratio: Callable[[tuple[int, ...]], float]
    """What picked teeth come to; picks that come to the same as the answer are as right."""


Ask = NumberAsked | ChoiceAsked | WheelAsked | PicksAsked


@dataclass(frozen=True, slots=True)
class Mistake:
    """What a usual mistake leads to, and its name."""

    answer: Answer
    name: str


@dataclass(frozen=True, slots=True)
class Posed:
    """A question.

    Attributes:
        words: the question. ask: what kind of answer. answer: the core's own. mistakes: by what they lead to.
        hints: three, each a smaller step. formula: in words. sheet: the working, whose last step is the answer.
        said: what is given besides the sheet's numbers. design: as a design file, to be drawn and opened on the Line.
        still: whether the drawing must not say which way things turn. first: but for the first wheel, where the
            question tells it: +1 clockwise, −1 anticlockwise. closed: nor what a case reduces.
    """

    words: str
    ask: Ask
    answer: Answer
    mistakes: tuple[Mistake, ...]
    hints: tuple[str, str, str]
    formula: str
    sheet: Sheet
    design: dict[str, Any]
    said: Mapping[str, Any] = field(default_factory=dict)
    still: bool = False
    first: int = 0
    closed: bool = False


@dataclass(slots=True)
class Sum:
    """A sum being set up: its sheet, with shorter words for what exercises put in."""

    sheet: Sheet = field(default_factory=lambda: Sheet({}))

    def given(self, symbol: str, words: str, value: float, dimension: str = "ratio") -> float:
        """A number that the question tells."""
        return self.sheet.put(symbol, words, value, dimension, "given")

    def teeth(self, a: int, b: int) -> None:
        """Tooth counts of a driver and of what it drives."""
        self.given("a", "teeth of the driver", a)
        self.given("b", "teeth of the driven wheel", b)

    def pairs(self, pairs: Sequence[tuple[int, int]]) -> None:
        """Tooth counts of pairs one behind the other: a_1, b_1, a_2 …"""
        for k, (a, b) in enumerate(pairs, 1):
            self.given(f"a_{k}", f"teeth of driver {k}", a)
            self.given(f"b_{k}", f"teeth of driven wheel {k}", b)

    def step(self, symbol: str, words: str, expression: str, dimension: str = "ratio") -> float:
        """A line of the working."""
        return self.sheet.step(symbol, words, expression, dimension)

    def number(
        self,
        d: Draw,
        words: str,
        dimension: str,
        answer: float,
        mistakes: Mapping[str, str],
        hints: tuple[str, str, str],
        design: dict[str, Any],
        formula: str,
    ) -> Posed:
        """A question for a number.

        Args:
            d: what it was drawn with.
            words: the question.
            dimension: of the answer.
            answer: by the core.
            mistakes: by name, each with what it works out, over the sheet's symbols.
            hints, design, formula: as of `Posed`.

        Raises:
            Again: answer and mistakes are too near to each other, or no sizes of real vehicles.
        """
        named = tuple(Mistake(evaluate(expression, self.sheet.known), name) for name, expression in mistakes.items())
        need_apart([answer, *(number_of(mistake.answer) for mistake in named)])
        ask = NumberAsked(dimension, d.unit(dimension))
        return Posed(words, ask, answer, known(named), hints, formula, self.sheet, design)


def choose(
    words: str,
    choices: Sequence[Choice],
    answer: str,
    mistakes: Mapping[str, str],
    hints: tuple[str, str, str],
    design: dict[str, Any],
    formula: str,
    sheet: Sheet | None = None,
    **more: Any,
) -> Posed:
    """A question with some answers to choose from; `mistakes` names what leads to each wrong one, by key."""
    named = tuple(Mistake(key, name) for key, name in mistakes.items() if key != answer)
    ask = ChoiceAsked(tuple(choices), more.pop("around", ""), more.pop("holes", ()))
    return Posed(words, ask, answer, known(named), hints, formula, sheet or Sheet({}), design, **more)


def known(mistakes: tuple[Mistake, ...]) -> tuple[Mistake, ...]:
    """The same: each has a name that can be explained."""
    missing = [mistake.name for mistake in mistakes if mistake.name not in MISTAKES]
    assert not missing, missing
    return mistakes


def need_apart(numbers: Sequence[float]) -> None:
    """All different enough to be told apart, and none of them 0.

    Raises:
        Again: they are not.
    """
    sizes = sorted(numbers)
    if not all(math.isfinite(size) and size != 0.0 for size in sizes):
        raise Again
    for first, second in pairwise(sizes):
        if abs(second - first) <= APART * max(abs(first), abs(second)):
            raise Again
