"""What values usually are where nobody has measured them, each as a range that about nine of ten lie in.

All of it is for a first answer: a value that was measured on the vehicle goes before it.
"""

from __future__ import annotations

from dataclasses import dataclass

Range = tuple[float, float]
"""Low and high end, SI."""


@dataclass(frozen=True, slots=True)
class Footing:
    """A wheel on a ground: its rolling resistance and its grip, both plain coefficients."""

    wheel: str
    ground: str
    rolling: Range
    grip: Range

    @property
    def words(self) -> str:
        """As people say it."""
        return f"{self.wheel} on {self.ground}"


_FOOTINGS = (
    # wheel                      ground                     rolling            grip
    ("air-filled tyre",          "dry asphalt",             (0.010, 0.018),    (0.70, 0.90)),
    ("air-filled tyre",          "wet asphalt",             (0.011, 0.020),    (0.45, 0.65)),
    ("air-filled tyre",          "gravel",                  (0.020, 0.035),    (0.40, 0.60)),
    ("air-filled tyre",          "short grass",             (0.035, 0.070),    (0.35, 0.55)),
    ("air-filled tyre",          "hard wet sand",           (0.030, 0.060),    (0.45, 0.65)),
    ("air-filled tyre",          "loose sand",              (0.12, 0.25),      (0.30, 0.45)),
    ("thin hard-pumped tyre",    "dry asphalt",             (0.004, 0.008),    (0.70, 0.90)),
    ("soft rubber tyre",         "a wooden floor",          (0.020, 0.035),    (0.70, 0.95)),
    ("soft rubber tyre",         "carpet",                  (0.030, 0.055),    (0.80, 1.10)),
    ("soft rubber tyre",         "concrete",                (0.020, 0.035),    (0.70, 0.95)),
    ("soft rubber tyre",         "hard wet sand",           (0.035, 0.070),    (0.45, 0.65)),
    ("hard rubber wheel",        "a wooden floor",          (0.010, 0.015),    (0.50, 0.70)),
    ("hard rubber wheel",        "concrete",                (0.012, 0.020),    (0.55, 0.75)),
    ("hard rubber wheel",        "carpet",                  (0.025, 0.045),    (0.60, 0.85)),
    ("hard plastic wheel",       "a wooden floor",          (0.008, 0.014),    (0.25, 0.40)),
    ("polyurethane wheel",       "dry asphalt",             (0.014, 0.025),    (0.55, 0.75)),
    ("polyurethane wheel",       "concrete",                (0.010, 0.018),    (0.55, 0.75)),
    ("steel wheel",              "dry steel rail",          (0.0015, 0.0040),  (0.18, 0.28)),
    ("steel wheel",              "wet steel rail",          (0.0015, 0.0040),  (0.10, 0.18)),
    ("rubber track",             "packed snow",             (0.06, 0.12),      (0.25, 0.40)),
    ("rubber track",             "fresh snow",              (0.10, 0.20),      (0.20, 0.30)),
    ("rubber track",             "short grass",             (0.06, 0.11),      (0.50, 0.70)),
)  # fmt: skip
FOOTINGS = tuple(Footing(*row) for row in _FOOTINGS)
FOOTINGS_FROM = (
    "Wong, Theory of Ground Vehicles, chapters on pneumatic tyres and on the mechanics of vehicle-terrain interaction; "
    "hard wheels: texts on materials handling, rolling friction of industrial wheels; rails: Hay, Railroad "
    "Engineering, chapter on train resistance and adhesion"
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


@dataclass(frozen=True, slots=True)
class MotorSize:
    """A size of motor.

    Attributes:
        words: as people say it. constant: its motor constant kt/√R, N·m/√W, which a rewound motor of the same size
        keeps. drag: torque of bearings, brushes and iron when it runs free, N·m. mass: kg.
    """

    words: str
    constant: Range
    drag: Range
    mass: Range


_SIZES = (
    # words                                          constant          drag               mass
    ("toy motor with brushes",                       (0.0030, 0.0045), (0.0005, 0.0012),  (0.015, 0.050)),
    ("can motor with brushes, 36 mm across",         (0.011, 0.016),   (0.005, 0.010),    (0.15, 0.25)),
    ("drill motor with brushes",                     (0.020, 0.030),   (0.010, 0.020),    (0.30, 0.60)),
    ("scooter motor with brushes",                   (0.14, 0.20),     (0.08, 0.18),      (1.5, 3.5)),
    ("kart motor with brushes",                      (0.38, 0.55),     (0.30, 0.60),      (6.0, 12.0)),
    ("small outrunner",                              (0.025, 0.040),   (0.003, 0.008),    (0.030, 0.10)),
    ("middle outrunner",                             (0.080, 0.12),    (0.015, 0.040),    (0.15, 0.40)),
    ("large outrunner",                              (0.19, 0.28),     (0.06, 0.12),      (0.60, 1.0)),
    ("brushless motor of a ride-on",                 (0.38, 0.55),     (0.15, 0.35),      (3.0, 6.0)),
)  # fmt: skip
MOTOR_SIZES = tuple(MotorSize(*row) for row in _SIZES)
MOTOR_SIZES_FROM = (
    "kt = 1/Kv and R = (kt/Km)²: Hughes and Drury, Electric Motors and Drives, chapter on conventional d.c. motors; "
    "the motor constants Km and free-running torques are the ranges of makers' data sheets of that size"
)


@dataclass(frozen=True, slots=True)
class CellKind:
    """A kind of cell.

    Attributes:
        words: as people say it. full: voltage of a full cell at rest, V.
        resistance: internal resistance times capacity, ohm·A·h: a cell of twice the capacity has half the resistance.
    """

    words: str
    full: float
    resistance: Range


_CELLS = (
    # words                                      full   resistance × capacity
    ("lithium pouch cell for high currents",     4.2,   (0.010, 0.020)),
    ("lithium round cell for power tools",       4.2,   (0.030, 0.060)),
    ("lithium round cell of high capacity",      4.2,   (0.10, 0.17)),
    ("lithium iron phosphate cell",              3.6,   (0.020, 0.050)),
    ("nickel-metal hydride cell",                1.4,   (0.030, 0.070)),
    ("lead-acid cell",                           2.15,  (0.025, 0.050)),
    ("alkaline cell",                            1.6,   (0.37, 0.75)),
)  # fmt: skip
CELL_KINDS = tuple(CellKind(*row) for row in _CELLS)
CELL_KINDS_FROM = (
    "Linden and Reddy, Handbook of Batteries, chapters on the internal resistance of each system; fresh cells at room "
    "temperature"
)

SIGMAS = 3.3
"""Standard deviations from one end of a range to the other, where nine of ten lie within (normal distribution)."""
