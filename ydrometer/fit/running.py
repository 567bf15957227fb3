"""A loop as it really runs: around its two wheels, and the tensioner where it reaches that."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from ydrometer.document.mounting import Point, Tensioner
from ydrometer.geometry import around
from ydrometer.geometry.around import Round, Taut
from ydrometer.geometry.segments import nearest_on


@dataclass(frozen=True)
class Running:
    """A loop between two shafts that stand somewhere.

    Attributes:
        driver, driven: where the two wheels stand, m. radii: at which the loop runs on them, m.
        crossed: whether it crosses between them. tensioner: that presses on it.
    """

    driver: Point
    driven: Point
    radii: tuple[float, float]
    crossed: bool
    tensioner: Tensioner | None

    @property
    def reached(self) -> bool:
        """Whether the loop touches its tensioner. One that it does not touch takes no part."""
        return len(self.wheels) > len(self._pair)

    @cached_property
    def taut(self) -> Taut:
        """The loop pulled tight.

        Raises:
            ValueError: two of its wheels overlap, so that no run goes between them.
        """
        return around.taut(self.wheels)

    @cached_property
    def wheels(self) -> list[Round]:
        """What it touches, anticlockwise from the driver; raises as `taut`.

        A tensioner that the loop would have to go around nearly whole is one that it does not touch. One inside that is
        wider than the loop lifts both runs, and is met by each.
        """
        if self.tensioner is None:
            return list(self._pair)
        if around.taut(self._in_order).wraps[self._in_order.index(self._third)] > math.pi:
            return list(self._pair)
        if not self.tensioner.outside and self.beside < 0.0 and not self.crossed:
            first, second = self._pair
            return [first, self._third, second, self._third]
        return self._in_order

    @property
    def wraps(self) -> tuple[float, float]:
        """On the driver and on the driven wheel, rad; raises as `taut`."""
        wraps, wheels = self.taut.wraps, self.wheels
        first, second = (wraps[wheels.index(wheel)] for wheel in self._pair)
        return first, second

    @cached_property
    def beside(self) -> float:
        """Between the tensioner and the run on which it does not press, m, below 0 where it cuts that; raises as
        `taut`.
        """
        direct = around.taut(self._in_order).runs[0 if self._in_order[2] is self._third else 2]
        at = self._third.x, self._third.y
        return math.dist(at, nearest_on(*direct, at)) - self._third.radius

    @cached_property
    def _pair(self) -> tuple[Round, Round]:
        """Its own two wheels. A crossed loop goes round the second one the other way."""
        return Round(*self.driver, self.radii[0]), Round(*self.driven, self.radii[1], self.crossed)

    @cached_property
    def _in_order(self) -> list[Round]:
        """All three wheels as the loop meets them, anticlockwise from the driver."""
        assert self.tensioner is not None  # only asked then
        left, behind = sides(*self._pair, self.tensioner.at, crossed=self.crossed)
        return in_order(*self._pair, self.tensioner, left=left, behind=behind)

    @property
    def _third(self) -> Round:
        return next(wheel for wheel in self._in_order if wheel not in self._pair)


def sides(first: Round, second: Round, at: Point, *, crossed: bool) -> tuple[Any, Any]:
    """Whether a place is on the left of the line from one wheel to the other, and behind the crossing of their loop.

    Args:
        first, second: the wheels, of one loop or of many.
        at: the place, m.
        crossed: whether the loop crosses.
    """
    x, y = at
    across, up = second.x - first.x, second.y - first.y
    along = ((x - first.x) * across + (y - first.y) * up) / (across**2 + up**2)
    behind = (along > first.radius / (first.radius + second.radius)) & crossed
    return across * (y - first.y) - up * (x - first.x) > 0.0, behind


def in_order(first: Round, second: Round, tensioner: Tensioner, *, left: bool, behind: bool) -> list[Round]:
    """A loop's two wheels and its tensioner as it meets them, anticlockwise from the first.

    Behind the crossing, in the lobe of the second wheel, left is right, and the inside of the loop is on the other side
    of it.

    Args:
        first, second: the wheels, of one loop or of many that have the tensioner on the same side.
        tensioner: that presses on it.
        left, behind: where that stands, as by `sides`.
    """
    third = Round(*tensioner.at, 0.5 * tensioner.diameter, tensioner.outside != behind)
    return [first, second, third] if left != behind else [first, third, second]
