"""A cycloidal reducer: an eccentric wobbles a lobed disc around inside a ring of pins."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Any, ClassVar

from ydrometer.base import reading
from ydrometer.base.labels import labelled, strength
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import box_build, fields
from ydrometer.document.stages.assembly import Hands, Job
from ydrometer.document.stages.box import Box
from ydrometer.document.stages.bring import BOXES, Bring
from ydrometer.document.stages.inside import WALL, BoxPart, Inside
from ydrometer.document.stages.plane import Coaxial
from ydrometer.document.stages.steps import Given, Step

LEAST_LOBES, MOST_LOBES = 3, 119
SHORTENED = 0.6
"""How far the disc's centre is off, as a share of the largest eccentricity, that of a pointed curve: R/(N + 1)."""
PIN = 0.3
"""Diameter of a pin as a share of the arc from one to the next."""
POINTS = 16
"""Points of the outline a lobe."""
ECCENTRIC = 0.25
"""Radius of the eccentric relative to the circle of the pins."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Cycloidal(Box):
    """A disc of N lobes among N + 1 pins: N turns of the eccentric turn the disc once, the other way.

    With one lobe fewer than there are pins the disc rolls back by one lobe in each turn of the eccentric, so that the
    ratio is N/(N + 1 − N) = N (Shin and Kwon, On the lobe profile design in a cycloid reducer using instant velocity
    center, Mechanism and Machine Theory 41, 2006, pages 596 to 616).
    """

    kind: ClassVar[str] = "cycloidal"
    title: ClassVar[str] = "Cycloidal reducer"
    short: ClassVar[str] = "Cycloidal"
    noun: ClassVar[str] = "cycloidal reducer"
    in_plane: ClassVar[Coaxial] = Coaxial()
    ratio_key: ClassVar[str] = "lobes"
    ratio_head: ClassVar[str] = "lobes, cycloidal"
    whole_part: ClassVar[str] = "gearbox"
    brings: ClassVar[tuple[Bring, ...]] = (
        *BOXES,
        Bring("gearbox", "inertia", "inertia"),
        Bring("gearbox", "mass", "mass"),
    )
    start: ClassVar[dict[str, Any]] = {"lobes": 10}

    lobes: int = labelled("Lobes of the disc", reading.whole(LEAST_LOBES, MOST_LOBES))
    torque_rating: float | None = fields.torque_rating()
    max_speed: float | None = fields.max_speed()
    efficiency: float | None = fields.efficiency()
    inertia: float = labelled(
        "Inertia about its input (eccentric and disc)", reading.quantity("inertia", at_least=0.0, default=0.0)
    )
    mass: float | None = strength("Mass", reading.quantity("mass", above=0.0, default=None))

    @property
    def ratio(self) -> float:
        """As many turns of the eccentric as the disc has lobes."""
        return float(self.lobes)

    @property
    def exact_ratio(self) -> Fraction | None:
        """A whole number."""
        return Fraction(self.lobes)

    @property
    def default_efficiency(self) -> float:
        """Of a reducer with plain pins."""
        return efficiencies.CYCLOIDAL

    @property
    def rotation(self) -> int:
        """The disc rolls back."""
        return -1

    @classmethod
    def typed_ratio(cls, ratio: float) -> Any:
        """Lobes come in whole numbers."""
        return min(max(LEAST_LOBES, round(ratio)), MOST_LOBES)

    def working(self, symbol: str, gear: int) -> Iterator[Step]:
        """The lobes are the ratio."""
        yield Given(f"i_{symbol}", f"{self.noun}: lobes of its disc, one fewer than pins", "lobes", float(self.lobes))

    def inside(self, height: float) -> Inside:
        """The disc among its pins, to scale with one another; the eccentric stands to the right."""
        pins = self.lobes + 1
        circle = 0.5 * height / WALL / (1.0 + math.pi * PIN / pins)
        pin, off, middle = math.pi * PIN * circle / pins, SHORTENED * circle / pins, 0.5 * height
        radii, angles = outline(self.lobes, circle, pin, off)
        at = [2.0 * math.pi * k / pins for k in range(pins)]
        parts = (
            BoxPart("rim", 0, middle, 0.0, circle + pin),
            *(BoxPart("roller", 0, middle + circle * math.cos(a), circle * math.sin(a), pin) for a in at),
            BoxPart("outline", 0, middle + off, 0.0, circle - pin + off, radii, angles),
            BoxPart("solid", 0, middle + off, 0.0, ECCENTRIC * circle),
        )
        return Inside(height, height, parts, (float(self.lobes),))

    def jobs(self, hands: Hands) -> Iterator[Job]:
        """Mounted as a box; then the turns are counted."""
        yield from box_build.jobs(hands, self.noun)
        yield Job(
            place=hands.path,
            verb="count",
            kind="check",
            minutes=5,
            after=(f"{hands.path}:turn",),
            parts=(hands.path,),
            title=f"Turn the input of the {self.noun} {self.lobes} times round: its output turns once, the other way",
            why="Another count is another disc, and the vehicle has another top speed.",
            cautions=(hands.fingers,),
        )


def outline(lobes: int, circle: float, pin: float, off: float) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """Outline of the disc about its own centre, so that it touches every pin: radii, m, and angles, rad.

    It is the path of a pin as the disc sees it, drawn in by the pin's radius (Shin and Kwon, as above).

    Args:
        lobes: N of the disc.
        circle: radius on which the pins stand, m.
        pin: radius of a pin, m.
        off: how far the disc's centre is from that of the pins, m, less than circle/(N + 1).
    """
    pins, points = lobes + 1, POINTS * lobes
    xs, ys = [], []
    for k in range(points):
        t = 2.0 * math.pi * k / points
        lean = math.atan2(-math.sin(lobes * t), circle / (off * pins) - math.cos(lobes * t))
        xs.append(circle * math.cos(t) - pin * math.cos(t + lean) - off * math.cos(pins * t))
        ys.append(circle * math.sin(t) - pin * math.sin(t + lean) - off * math.sin(pins * t))
    radii = tuple(math.hypot(x, y) for x, y in zip(xs, ys, strict=True))
    return radii, tuple(math.atan2(y, x) for x, y in zip(xs, ys, strict=True))
