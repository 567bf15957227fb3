"""Wheels that stand on the plate, and what couples two shafts: the distances that suit them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer.document.stages import Stage
from ydrometer.document.stages.forms import Form
from ydrometer.document.stages.plane import Contact, Loop, Mesh
from ydrometer.fit.along import Reach, off_all
from ydrometer.fit.stock import WheelKey, wheel_key
from ydrometer.geometry import gears, loops

USUAL_BACKLASH = 0.04
"""Backlash at the pitch circle as a share of the module, to begin with; common practice for spur gears."""
USUAL_TOLERANCE = 1e-4
USUAL_SHARE = 0.1
"""By how much the distance of two shafts may be off where nothing is said, m."""


@dataclass(frozen=True, slots=True)
class Wheel:
    """A wheel of the line on its shaft.

    Attributes:
        path: of its stage. member: driver, driven, or idler with its number. place: where the document has its measure.
        shaft: the path of what turns it.
        form. measure: teeth, or a diameter, m. size: module or pitch, m, 0 where it has no teeth.
        pitch_radius: on which it works, m. outer_radius: over all that turns with it, m.
    """

    path: str
    member: str
    place: str
    shaft: str
    form: Form
    measure: float
    size: float
    pitch_radius: float
    outer_radius: float

    @property
    def name(self) -> str:
        """As an item of a stack names it."""
        return f"{self.path} {self.member}"

    @property
    def inner_radius(self) -> float:
        """Clear inside a ring, m; 0 of other wheels."""
        return self.form.inner_radius(self.size, self.measure)

    @property
    def teeth(self) -> int:
        """Number of teeth; 0 where it has none."""
        return int(self.measure) if self.form.toothed else 0

    @property
    def stock_key(self) -> WheelKey:
        """As a bin's parts are looked up."""
        return wheel_key(self.form, self.size, self.measure)

    @property
    def words(self) -> str:
        """As people say it: "56-tooth gear"."""
        return self.form.words(self.measure)


@dataclass(frozen=True, slots=True)
class Coupling:
    """Two wheels that belong together, and the distances that suit them; none where nothing says how far.

    Attributes:
        path: of the stage, of a mesh that turns an idler that idler's. stage: to which they belong. driver, driven.
        reaches. free: least distance at which they go together at all, m; of a ring the most. lengths: of a loop, m,
        with what each is called; several where the stage has none. turns: +1 where the driver turns clockwise, −1
        where it does not.
        pressure_angle: of teeth that mesh, rad. around_driven: of a further motor on the same gear, how far around that
        it is from the first one where nothing says so, rad.
    """

    path: str
    stage: Stage
    driver: Wheel
    driven: Wheel
    reaches: tuple[Reach, ...]
    free: float
    turns: int = 1
    lengths: tuple[tuple[float, str], ...] = ()
    pressure_angle: float = 0.0
    around_driven: float = 0.0

    @property
    def wheels(self) -> tuple[Wheel, Wheel]:
        """Driver and driven."""
        return self.driver, self.driven

    @property
    def own(self) -> bool:
        """Whether it has the path of its stage: not a mesh that turns an idler, or that of a further motor."""
        return self.path == self.driver.path

    @property
    def shafts(self) -> tuple[str, str]:
        """Their shafts."""
        return self.driver.shaft, self.driven.shaft

    @property
    def loop(self) -> Loop | None:
        """What runs around both; None where their rims meet."""
        return self.stage.in_plane if isinstance(self.stage.in_plane, Loop) else None

    @property
    def is_loop(self) -> bool:
        """Whether something runs around both."""
        return self.loop is not None

    @property
    def inside(self) -> bool:
        """Whether the driver stands inside the driven wheel."""
        return self.driven.form.encloses

    @property
    def may_be_nearer(self) -> bool:
        """Whether a larger tolerance lets its shafts stand nearer: not where teeth would be pushed into each other."""
        return not isinstance(self.stage.in_plane, Mesh) or self.inside

    @property
    def may_be_farther(self) -> bool:
        """Whether a larger tolerance lets its shafts stand farther apart: in a ring that pushes teeth into it, and
        rims would not touch.
        """
        return self.is_loop or not (self.inside or isinstance(self.stage.in_plane, Contact))

    @property
    def radii(self) -> tuple[float, float]:
        """By which the length of what runs around driver and driven is computed, m."""
        first, second = (wheel.form.loop_radius(wheel.size, wheel.measure) for wheel in self.wheels)
        return first, second

    @property
    def around(self) -> loops.Shape:
        """The geometry of what runs around both."""
        return loops.CROSSED if self.stage.crossed else loops.OPEN

    def off(self, distance: float) -> float:
        """By how much a distance of its shafts misses all that suit it, m; 0 where it suits."""
        return off_all(self.reaches, distance)

    def partner(self, shaft: str) -> str:
        """The other one of its shafts; empty for one that it does not couple."""
        return {self.driver.shaft: self.driven.shaft, self.driven.shaft: self.driver.shaft}.get(shaft, "")


def usual_tolerance(size: Any) -> Any:
    """How much further apart than without backlash two gears may stand where nothing is said, m.

    A tenth of a millimetre, as is usual for small metal gears; of small teeth a tenth of their module.

    Args:
        size: module, m, or an array of them.
    """
    return np.minimum(USUAL_TOLERANCE, USUAL_SHARE * size)


def gear_reach(size: float, teeth: tuple[int, int], angle: float, tolerance: float | None, *, ring: bool) -> Reach:
    """The distances that suit two gears: from no backlash to a tolerance, best with the usual backlash.

    Args:
        size: module, m.
        teeth: of driver and driven.
        angle: of pressure, rad.
        tolerance: how much further apart than without backlash they may stand, in a ring nearer, m; None is the usual
        one.
        ring: whether the driven one is a ring.
    """
    tolerance = float(usual_tolerance(size)) if tolerance is None else tolerance
    free = gears.centre_distance(size, *teeth, angle, internal=ring)
    loose = gears.centre_distance(size, *teeth, angle, internal=ring, backlash=USUAL_BACKLASH * size)
    if ring:
        return Reach(free - tolerance, free, max(loose, free - tolerance))
    return Reach(free, free + tolerance, min(loose, free + tolerance))


def contact_reach(touching: float, tolerance: float | None) -> Reach:
    """The distances that suit two rims pressed on each other: touching, or a tolerance nearer as one gives way.

    Args:
        touching: distance at which they touch, m.
        tolerance: m; None is a tenth of a millimetre.
    """
    return Reach(touching - (USUAL_TOLERANCE if tolerance is None else tolerance), touching, touching)


def taut_reach(taut: float, tolerance: float, loop: Loop, name: str = "") -> Reach:
    """The distances that suit a loop; a chain may hang through a little.

    Args:
        taut: at which it is taut, m.
        tolerance: how far its wheels may be off that, m.
        loop: what runs around.
        name: what its length is called.
    """
    return Reach(taut - max(tolerance, loop.stretch * taut), taut + tolerance, taut, name)
