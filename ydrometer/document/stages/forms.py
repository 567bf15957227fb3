"""The forms of wheels: what tells two of a form apart, on which radius each works, and how far it reaches.

A wheel is told by the size of its teeth (module of a gear, pitch of a pulley or sprocket; 0 where it has none) and by
its measure: a number of teeth, or a diameter in metres.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal

from ydrometer.base.errors import QuantityError
from ydrometer.base.units import parse_uncertain
from ydrometer.geometry import chains, gears, loops

FormName = Literal["gear", "ring", "bevel", "pulley", "sprocket", "grooved", "roller"]
Measure = Literal["teeth", "pitch_diameter", "diameter"]

LEAST_TEETH = 5
MOST_TEETH = 1000
LEAST_DIAMETER = 1e-6
"""m; below it there is nothing to work on."""
MOST_DIAMETER = 10.0
"""m."""
BELT_BACK = 0.22
"""How far a toothed belt stands over its pitch line, relative to its pitch (ISO 13050, Synchronous belt drives:
Metric pitch, curvilinear profiles, belt dimensions; middle of the range)."""
PLATE = 0.475
"""Half the height of a chain's plates relative to its pitch: they stand so far over the pitch circle (ISO 606,
Short-pitch transmission precision roller and bush chains, chain dimensions: inner plate depth)."""
ROOT = 1.25
"""How far the roots of a ring's teeth lie outside its pitch circle, in modules (ISO 53, Cylindrical gears for general
and heavy engineering, Standard basic rack tooth profile, section 4)."""
RING_WALL = 2.5
"""Modules of metal around the roots of a ring (workshop practice)."""
GROOVE = 1.06
"""Rim of a V-pulley relative to the circle on which the belt runs, where the bin does not say."""


PER_LENGTH = "diametral pitch"
PER_LENGTH_KEYS = ("diametral_pitch",)
"""Keys that give the size of teeth by how many go on a length."""


def read_typed(typed: Any, dimension: str) -> float | None:
    """A quantity as typed, SI; None where nothing stands, or nothing that can be read.

    Args:
        typed: a text, a number, or an object that has it as its `value`.
        dimension: of the quantity.
    """
    plain = typed.get("value") if isinstance(typed, Mapping) else typed
    try:
        return None if plain is None else parse_uncertain(plain, dimension)[0]
    except QuantityError:
        return None


@dataclass(frozen=True, slots=True)
class Form:
    """A form of wheel; this one stands for gears seen from outside, the others differ as they say.

    Attributes:
        name: as drawings have it. noun: as sentences have it. part: kind of a bin's parts that are such wheels, empty
        where a bin has none. measure: the key of what tells two of one tooth size apart. size_keys: the keys under
        which a part or a stage gives the size of the teeth. usual_size: of teeth, m, to draw one whose is not given.
    """

    name: FormName
    noun: str
    part: str = ""
    measure: Measure = "teeth"
    size_keys: tuple[str, ...] = ()
    usual_size: float = 0.0

    def size_in(self, typed: Mapping[str, Any]) -> float | None:
        """Size of the teeth, m, of a part or a stage as typed; None where it says none that can be read.

        Args:
            typed: with one of `size_keys`.
        """
        for key in self.size_keys:
            value = read_typed(typed.get(key), PER_LENGTH if key in PER_LENGTH_KEYS else "length")
            if value:
                return 1.0 / value if key in PER_LENGTH_KEYS else value
        return None

    @property
    def encloses(self) -> bool:
        """Whether what works on it stands inside it."""
        return False

    @property
    def bought_as(self) -> str:
        """Kind on a parts list; empty where a stage's wheels go by the stage's own."""
        return self.part

    @property
    def toothed(self) -> bool:
        """Whether its measure is a whole number of teeth, not a diameter."""
        return self.measure == "teeth"

    @property
    def least(self) -> float:
        """The least measure, teeth or m."""
        return LEAST_TEETH if self.toothed else LEAST_DIAMETER

    @property
    def most(self) -> float:
        """The largest measure, teeth or m."""
        return MOST_TEETH if self.toothed else MOST_DIAMETER

    def pitch_radius(self, size: float, measure: float) -> float:
        """Radius on which the wheel works, m: m·z/2 (ISO 21771, Cylindrical involute gears:
        Concepts and geometry, reference diameter).

        Args:
            size: of the teeth, m.
            measure: teeth, or a diameter, m.
        """
        return 0.5 * size * measure

    def loop_radius(self, size: float, measure: float) -> float:
        """Radius by which the length of a loop around the wheel is computed, m.

        Args:
            size: of the teeth, m.
            measure: teeth, or a diameter, m.
        """
        return self.pitch_radius(size, measure)

    def outer_radius(self, size: float, measure: float, rim: float | None = None) -> float:
        """Radius over all that turns with the wheel, what runs on it included, m.

        Args:
            size: of the teeth, m.
            measure: teeth, or a diameter, m.
            rim: diameter over flanges or rim, m, where that is known.
        """
        return 0.5 * max(gears.outside_diameter(size, int(measure)), rim or 0.0)

    def inner_radius(self, size: float, measure: float) -> float:
        """Radius that is clear inside a wheel, m; 0 of one that does not enclose anything.

        Args:
            size: of the teeth, m.
            measure: teeth, or a diameter, m.
        """
        return 0.0

    def size_words(self, size: float) -> str:
        """The size of teeth as a shop tells it: "module 1 mm", "pitch 5 mm".

        Args:
            size: module or pitch, m.
        """
        return f"{'module' if 'module' in self.size_keys else 'pitch'} {1e3 * size:.6g} mm"

    def words(self, measure: float) -> str:
        """A wheel as people say it: "56-tooth gear", "V-pulley of 120 mm".

        Args:
            measure: teeth, or a diameter, m.
        """
        return f"{measure:.0f}-tooth {self.noun}" if self.toothed else f"{self.noun} of {1e3 * measure:.4g} mm"


@dataclass(frozen=True, slots=True)
class _Ring(Form):
    @property
    def encloses(self) -> bool:
        """Its teeth point inwards."""
        return True

    @property
    def bought_as(self) -> str:
        """No gear of a bin is a ring."""
        return self.noun

    def outer_radius(self, size: float, measure: float, rim: float | None = None) -> float:
        """Around the ring: what is said, else so much over the roots of its teeth as carries them."""
        roots = 0.5 * size * measure + ROOT * size
        return max(0.5 * rim, roots) if rim else roots + RING_WALL * size

    def inner_radius(self, size: float, measure: float) -> float:
        """Within the tips of its teeth."""
        return 0.5 * size * (measure - 2)


@dataclass(frozen=True, slots=True)
class _Pulley(Form):
    def pitch_radius(self, size: float, measure: float) -> float:
        """z·p/(2·π) (ISO 5294, Synchronous belt drives: Pulleys, pitch diameter)."""
        return loops.pitch_radius(size, measure)

    def outer_radius(self, size: float, measure: float, rim: float | None = None) -> float:
        """Over the back of the belt, or over the flanges."""
        return max(self.pitch_radius(size, measure) + BELT_BACK * size, 0.5 * (rim or 0.0))


@dataclass(frozen=True, slots=True)
class _Sprocket(Form):
    def pitch_radius(self, size: float, measure: float) -> float:
        """p/(2·sin(π/z)) (ISO 606, Short-pitch transmission precision roller and bush chains, pitch circle)."""
        return 0.5 * chains.pitch_diameter(size, measure)

    def loop_radius(self, size: float, measure: float) -> float:
        """z·p/(2·π): on this circle the links are as long as their pitch."""
        return loops.pitch_radius(size, measure)

    def outer_radius(self, size: float, measure: float, rim: float | None = None) -> float:
        """Over the plates of the chain."""
        return self.pitch_radius(size, measure) + PLATE * size


@dataclass(frozen=True, slots=True)
class _Plain(Form):
    def pitch_radius(self, size: float, measure: float) -> float:
        """Half the diameter."""
        return 0.5 * measure

    def outer_radius(self, size: float, measure: float, rim: float | None = None) -> float:
        """The rim itself."""
        return 0.5 * (measure if rim is None else rim)


@dataclass(frozen=True, slots=True)
class _Grooved(_Plain):
    def outer_radius(self, size: float, measure: float, rim: float | None = None) -> float:
        """Over the rim, which stands over the line on which the belt runs."""
        return 0.5 * (GROOVE * measure if rim is None else rim)


GEAR = Form("gear", "gear", "gear", size_keys=("module", "diametral_pitch"), usual_size=1e-3)
RING = _Ring("ring", "ring gear", "gear", size_keys=("module", "diametral_pitch"), usual_size=1e-3)
BEVEL = Form("bevel", "bevel gear")
PULLEY = _Pulley("pulley", "pulley", "pulley", size_keys=("pitch",), usual_size=5e-3)
SPROCKET = _Sprocket("sprocket", "sprocket", "sprocket", size_keys=("pitch",), usual_size=6.35e-3)
GROOVED = _Grooved("grooved", "V-pulley", "v_pulley", "pitch_diameter")
ROLLER = _Plain("roller", "rim", measure="diameter")

OF_PART = {form.part: form for form in (GEAR, PULLEY, SPROCKET, GROOVED)}
"""The form of the wheels that a bin has, by the kind of part."""
