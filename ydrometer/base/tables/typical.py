"""What values usually are where nobody has measured them, each as a range that about nine of ten lie in.

All of it is for a first answer: a value that was measured on the vehicle goes before it.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

Range = tuple[float, float]
"""Low and high end, SI."""


Rolls = Literal["", "tyre", "hard wheel"]
"""How rolling resistance follows the wheel's diameter: not noticeably, as of air-filled tyres, as of hard wheels."""
HARD_WHEEL = 0.125
"""m; the ranges of hard wheels are those of this diameter: 0.5 to 1.5 mm over the radius on hard ground."""
TYRES = ((0.25, (0.020, 0.035)), (0.40, (0.015, 0.025)), (0.50, (0.006, 0.018)))
"""Rolling resistance of air-filled tyres on dry asphalt by their diameter, m; beyond the ends as at them."""


@dataclass(frozen=True, slots=True)
class Footing:
    """A wheel on a ground: its rolling resistance and its grip, both plain coefficients.

    Attributes:
        wheel, ground. rolling: of an air-filled tyre half a metre across, of a hard wheel of `HARD_WHEEL`. grip.
        rolls: how the first follows the diameter.
    """

    wheel: str
    ground: str
    rolling: Range
    grip: Range
    rolls: Rolls = ""

    @property
    def words(self) -> str:
        """As people say it."""
        return f"{self.wheel} on {self.ground}"

    def rolling_of(self, diameter: float | None) -> Range:
        """Rolling resistance of a wheel: a hard one's falls with its radius, a tyre's as on asphalt.

        Args:
            diameter: m, above 0; None is a wheel as the table has it.
        """
        low, high = self.rolling
        if diameter is None or not self.rolls:
            return self.rolling
        if self.rolls == "hard wheel":
            return low * HARD_WHEEL / diameter, high * HARD_WHEEL / diameter
        sizes, *ends = np.array([(size, *span) for size, span in TYRES]).T
        more = [float(np.interp(diameter, sizes, end) - end[-1]) for end in ends]
        return low + more[0], high + more[1]


_FOOTINGS: tuple[tuple[str, str, Range, Range, Rolls], ...] = (
    # wheel                      ground                     rolling            grip
    ("air-filled tyre",          "dry asphalt",             (0.006, 0.018),    (0.70, 0.90),  "tyre"),
    ("air-filled tyre",          "wet asphalt",             (0.007, 0.020),    (0.45, 0.65),  "tyre"),
    ("air-filled tyre",          "gravel",                  (0.016, 0.035),    (0.40, 0.60),  "tyre"),
    ("air-filled tyre",          "short grass",             (0.031, 0.070),    (0.35, 0.55),  "tyre"),
    ("air-filled tyre",          "hard wet sand",           (0.026, 0.060),    (0.45, 0.65),  "tyre"),
    ("air-filled tyre",          "loose sand",              (0.12, 0.25),      (0.30, 0.45),  "tyre"),
    ("thin hard-pumped tyre",    "dry asphalt",             (0.004, 0.008),    (0.70, 0.90),  ""),
    ("soft rubber tyre",         "a wooden floor",          (0.020, 0.035),    (0.70, 0.95),  ""),
    ("soft rubber tyre",         "carpet",                  (0.030, 0.055),    (0.80, 1.10),  ""),
    ("soft rubber tyre",         "concrete",                (0.020, 0.035),    (0.70, 0.95),  ""),
    ("soft rubber tyre",         "hard wet sand",           (0.035, 0.070),    (0.45, 0.65),  ""),
    ("hard rubber wheel",        "a wooden floor",          (0.010, 0.015),    (0.50, 0.70),  "hard wheel"),
    ("hard rubber wheel",        "concrete",                (0.012, 0.020),    (0.55, 0.75),  "hard wheel"),
    ("hard rubber wheel",        "carpet",                  (0.025, 0.045),    (0.60, 0.85),  "hard wheel"),
    ("hard plastic wheel",       "a wooden floor",          (0.008, 0.014),    (0.25, 0.40),  "hard wheel"),
    ("polyurethane wheel",       "dry asphalt",             (0.014, 0.024),    (0.55, 0.75),  "hard wheel"),
    ("polyurethane wheel",       "concrete",                (0.010, 0.018),    (0.55, 0.75),  "hard wheel"),
    ("steel wheel",              "dry steel rail",          (0.0015, 0.0040),  (0.18, 0.28),  ""),
    ("steel wheel",              "wet steel rail",          (0.0015, 0.0040),  (0.10, 0.18),  ""),
    ("steel wheel of 50 to 150 mm with plain bearings", "dry steel rail", (0.005, 0.015), (0.18, 0.28), ""),
    ("steel wheel of 50 to 150 mm with plain bearings", "wet steel rail", (0.005, 0.015), (0.10, 0.18), ""),
    ("rubber track",             "packed snow",             (0.06, 0.12),      (0.25, 0.40),  ""),
    ("rubber track",             "fresh snow",              (0.10, 0.20),      (0.20, 0.30),  ""),
    ("rubber track",             "short grass",             (0.06, 0.11),      (0.50, 0.70),  ""),
)  # fmt: skip
FOOTINGS = tuple(Footing(*row) for row in _FOOTINGS)
FOOTINGS_FROM = (
    "Wong, Theory of Ground Vehicles, chapters on pneumatic tyres, by diameter, and on the mechanics of "
    "vehicle-terrain interaction; hard wheels: texts on materials handling, rolling friction of industrial wheels, 0.5 "
    "to 1.5 mm over the radius; rails: Hay, Railroad Engineering, chapter on train resistance and adhesion"
)

DRAG_AREAS: tuple[tuple[str, Range], ...] = (
    ("rider sitting low in a cart", (0.40, 0.55)),
    ("rider sitting upright", (0.55, 0.75)),
    ("rider standing on a board", (0.50, 0.70)),
    ("rider crouching on a board", (0.30, 0.40)),
    ("hauler with its driver sitting on it", (0.60, 0.90)),
    ("sled with a rider", (0.50, 0.70)),
    ("flat robot, 0.3 to 0.5 m wide", (0.03, 0.08)),
    ("small car, about 0.2 m wide", (0.008, 0.020)),
    ("light car with a panel laid flat", (0.010, 0.025)),
)
"""Drag coefficient times frontal area, m²."""
DRAG_AREAS_FROM = (
    "Hucho (ed.), Aerodynamics of Road Vehicles, appendix of drag coefficients of bluff bodies and of seated and "
    "standing people, times the frontal areas of such vehicles"
)

HEIGHTS: tuple[tuple[str, Range], ...] = (
    ("flat robot", (0.04, 0.10)),
    ("small car", (0.02, 0.04)),
    ("light car with a panel on top", (0.05, 0.10)),
    ("cart with its rider sitting low", (0.35, 0.50)),
    ("rider sitting upright", (0.55, 0.75)),
    ("rider standing on a board", (0.85, 1.05)),
    ("hauler with its driver sitting on it", (0.50, 0.70)),
    ("sled with a rider", (0.45, 0.65)),
)
"""Height of the centre of mass above the ground, rider included, m."""
HEIGHTS_FROM = (
    "Winter, Biomechanics and Motor Control of Human Movement, table of segment masses and centres of mass, together "
    "with the masses of such vehicles"
)


BY_MASS = 0.83
"""Power of a motor's mass with which its motor constant grows, of motors of one build."""


@dataclass(frozen=True, slots=True)
class MotorBuild:
    """A way to build motors: the motor constant kt/√R of one of a kilogram, N·m/√W."""

    constant: Range

    def constant_of(self, mass: float) -> Range:
        """Motor constant of one of any mass, N·m/√W, which a rewound motor of the same size keeps.

        Args:
            mass: kg, above 0.
        """
        low, high = self.constant
        return low * mass**BY_MASS, high * mass**BY_MASS


BRUSHED = MotorBuild((0.05, 0.10))
FLAT_KART = MotorBuild((0.10, 0.14))
OUTRUNNER = MotorBuild((0.30, 0.80))


@dataclass(frozen=True, slots=True)
class MotorSize:
    """A size of motor.

    Attributes:
        words: as people say it. build. drag: torque of bearings, brushes and iron when it runs free, N·m. mass: kg.
    """

    words: str
    build: MotorBuild
    drag: Range
    mass: Range

    def constant_of(self, mass: float | None) -> Range:
        """Motor constant, N·m/√W, of one of a mass.

        Args:
            mass: kg; where it is not known, or that of another size, one in the middle of this size.
        """
        low, high = self.mass
        return self.build.constant_of(mass if mass is not None and low <= mass <= high else math.sqrt(low * high))


_SIZES = (
    # words                                          build      drag               mass
    ("toy motor with brushes",                       BRUSHED,   (0.0005, 0.0012),  (0.015, 0.050)),
    ("can motor with brushes, 36 mm across",         BRUSHED,   (0.005, 0.010),    (0.15, 0.25)),
    ("drill motor with brushes",                     BRUSHED,   (0.010, 0.020),    (0.30, 0.60)),
    ("scooter motor with brushes",                   BRUSHED,   (0.08, 0.18),      (1.5, 3.5)),
    ("kart motor with brushes",                      FLAT_KART, (0.30, 0.60),      (6.0, 12.0)),
    ("small outrunner",                              OUTRUNNER, (0.003, 0.008),    (0.030, 0.10)),
    ("middle outrunner",                             OUTRUNNER, (0.015, 0.040),    (0.15, 0.40)),
    ("large outrunner",                              OUTRUNNER, (0.06, 0.12),      (0.60, 1.0)),
    ("brushless motor of a ride-on",                 OUTRUNNER, (0.15, 0.35),      (3.0, 6.0)),
)  # fmt: skip
MOTOR_SIZES = tuple(MotorSize(*row) for row in _SIZES)
MOTOR_SIZES_FROM = (
    "kt = 1/Kv and R = (kt/Km)²: Hughes and Drury, Electric Motors and Drives, chapter on conventional d.c. motors; "
    "Km grows with the mass to the power 0.83: Hendershot and Miller, Design of Brushless Permanent-Magnet Motors, "
    "chapter on sizing; the ranges of a kilogram and the free-running torques are those of makers' data sheets"
)

RADIAL_RATINGS: tuple[tuple[str, Range], ...] = (
    ("motor with ball bearings", (100.0, 300.0)),
    ("motor with bushes", (33.0, 100.0)),
)
"""Force across its shaft that a motor stands, N for each kg of its mass."""
RADIAL_RATINGS_FROM = (
    "Hughes and Drury, Electric Motors and Drives, chapter on motor and drive selection; the ranges are those of "
    "makers' data sheets: 0.1 to 0.3 N a gram with ball bearings, a third of it with bushes"
)


@dataclass(frozen=True, slots=True)
class CellKind:
    """A kind of cell.

    Attributes:
        words: as people say it. nominal: voltage, V. full: of a full cell at rest, V.
        resistance: internal resistance times capacity, ohm·A·h: a cell of twice the capacity has half the resistance.
    """

    words: str
    nominal: float
    full: float
    resistance: Range


_CELLS = (
    # words                                      nominal  full   resistance × capacity
    ("lithium pouch cell for high currents",     3.7,     4.15,  (0.010, 0.020)),
    ("lithium round cell for power tools",       3.7,     4.15,  (0.030, 0.060)),
    ("lithium round cell of high capacity",      3.7,     4.15,  (0.10, 0.17)),
    ("lithium iron phosphate cell",              3.2,     3.38,  (0.020, 0.050)),
    ("nickel-metal hydride cell",                1.2,     1.35,  (0.030, 0.070)),
    ("lead-acid cell",                           2.0,     2.13,  (0.025, 0.050)),
    ("alkaline cell",                            1.5,     1.6,   (0.37, 0.75)),
)  # fmt: skip
CELL_KINDS = tuple(CellKind(*row) for row in _CELLS)
CELL_KINDS_FROM = (
    "Linden and Reddy, Handbook of Batteries, chapters on the voltage and the internal resistance of each system; "
    "fresh cells at room temperature"
)

SIGMAS = 3.3
"""Standard deviations from one end of a range to the other, where nine of ten lie within (normal distribution)."""
