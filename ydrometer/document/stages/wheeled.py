"""Stages told by the measures of their wheels: with teeth, or with rims that slip."""

from __future__ import annotations

import math
from collections.abc import Iterator
from fractions import Fraction
from typing import ClassVar

from ydrometer.document.stages.forms import Form
from ydrometer.document.stages.stage import Member, Stage
from ydrometer.document.stages.steps import Derived, Given, Step


class Wheeled(Stage):
    """A stage told by the measures of its driver and its driven wheel."""

    __slots__ = ()
    form: ClassVar[Form]

    @property
    def members(self) -> tuple[Member, ...]:
        """Driver and driven."""
        keys = [(end, f"{end}_{self.form.measure}") for end in ("driver", "driven")]
        return tuple(Member(end, key, self.form, getattr(self, key)) for end, key in keys)

    @property
    def sizes_words(self) -> str:
        """Driver and driven."""
        driver, driven = self.members[0], self.members[-1]
        if self.form.toothed:
            return f"{driver.measure} : {driven.measure}"
        return f"{1e3 * driver.measure:.5g} : {1e3 * driven.measure:.5g} mm"

    def working(self, symbol: str, gear: int) -> Iterator[Step]:
        """Driven over driver; where something slips, the speed ratio besides."""
        driver, driven = self.members[0], self.members[-1]
        letter = "z" if self.form.toothed else "d"
        for end, member in (("a", driver), ("b", driven)):
            words = f"{self.noun}: {member.name} {'teeth' if self.form.toothed else 'diameter'}"
            # Teeth are plain numbers; diameters are quantities of the document.
            value = member.measure if self.form.toothed else None
            yield Given(f"{letter}_{symbol}{end}", words, member.key, value)
        yield Derived(f"i_{symbol}", f"ratio of the {self.noun}", f"{letter}_{symbol}b/{letter}_{symbol}a")


class Toothed(Wheeled):
    """A driver and a driven wheel told by their teeth."""

    __slots__ = ()
    driver_teeth: int
    driven_teeth: int

    @property
    def ratio(self) -> float:
        """Driven teeth over driver teeth."""
        return self.driven_teeth / self.driver_teeth

    @property
    def exact_ratio(self) -> Fraction | None:
        """Driven teeth over driver teeth."""
        return Fraction(self.driven_teeth, self.driver_teeth)


class Slipping(Wheeled):
    """Two wheels without teeth: the driven one lags under load."""

    __slots__ = ()
    slip_key: ClassVar[str]
    slip_noun: ClassVar[str]

    @property
    def speed_ratio(self) -> float:
        """The driven wheel turns slower by the slip s: i/(1 − s)."""
        return self.ratio / (1.0 - self.slip)

    def working(self, symbol: str, gear: int) -> Iterator[Step]:
        """Slip takes speed and no torque."""
        yield from super().working(symbol, gear)
        yield Given(f"s_{symbol}", f"{self.slip_noun} of the {self.noun}", self.slip_key)
        yield Derived(f"j_{symbol}", "its ratio of speeds", f"i_{symbol}/(1 - s_{symbol})")


def hunting_remark(driver: int, driven: int) -> str:
    """Where the same teeth of two wheels keep meeting; empty where they do not.

    Wear is even where the numbers of teeth have no common factor ("hunting tooth": Dudley, Handbook of
    Practical Gear Design).

    Args:
        driver: its teeth.
        driven: its teeth.
    """
    shared = math.gcd(driver, driven)
    if shared == 1:
        return ""
    return (
        f"Both counts are multiples of {shared}: the same teeth meet again after {driven // shared} turns of the "
        f"driver. Without a common factor they would wear evenly."
    )
