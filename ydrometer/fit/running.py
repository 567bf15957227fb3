"""A loop as it really runs: around its two wheels, and the tensioner where it reaches that."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

from ydrometer.document.mounting import Point, Tensioner
from ydrometer.geometry import around
from ydrometer.geometry.around import Round, Taut


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
        return self._with_tensioner is not None

    @property
    def taut(self) -> Taut:
        """The loop pulled tight.

        Raises:
            ValueError: two of its wheels overlap, so that no run goes between them.
        """
        return self._with_tensioner or around.taut(self._pair)

    @property
    def wheels(self) -> list[Round]:
        """What it touches, anticlockwise from the driver."""
        return self._in_order if self._with_tensioner else list(self._pair)

    @property
    def wraps(self) -> tuple[float, float]:
        """On the driver and on the driven wheel, rad; raises as `taut`."""
        wraps, wheels = self.taut.wraps, self.wheels
        first, second = (wraps[wheels.index(wheel)] for wheel in self._pair)
        return first, second

    @cached_property
    def _pair(self) -> tuple[Round, Round]:
        """Its own two wheels. A crossed loop goes round the second one the other way."""
        return Round(*self.driver, self.radii[0]), Round(*self.driven, self.radii[1], self.crossed)

    @cached_property
    def _with_tensioner(self) -> Taut | None:
        """The loop over the tensioner; None where it goes past that without touching it.

        A wheel that the loop would have to go around nearly whole is one that it does not touch.
        """
        if self.tensioner is None:
            return None
        wheels = self._in_order
        taut = around.taut(wheels)
        place = next(i for i, wheel in enumerate(wheels) if wheel not in self._pair)
        return taut if taut.wraps[place] <= math.pi else None

    @property
    def _in_order(self) -> list[Round]:
        """All three wheels as the loop meets them, anticlockwise from the driver.

        Behind the crossing, in the lobe of the driven wheel, left is right, and the inside of the loop is on the other
        side of it.
        """
        assert self.tensioner is not None  # only asked then
        first, second = self._pair
        x, y = self.tensioner.at
        across, up = second.x - first.x, second.y - first.y
        along = ((x - first.x) * across + (y - first.y) * up) / (across**2 + up**2)
        behind = self.crossed and along > first.radius / (first.radius + second.radius)
        left = across * (y - first.y) - up * (x - first.x) > 0.0
        third = Round(x, y, 0.5 * self.tensioner.diameter, self.tensioner.outside != behind)
        return [first, second, third] if left != behind else [first, third, second]
