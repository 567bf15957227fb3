"""What shafts stand that are bent anew with every turn: surface, size, and what weakens them where they are notched."""

from __future__ import annotations

from dataclasses import dataclass

SHAPES = ("round", "hexagon", "square", "keyway", "spline", "flat")
"""Of a shaft, or of the bore that goes on it."""
NOTCHES = ("shoulder", "sharp shoulder", "ring groove")
"""What weakens a shaft besides its shape."""


@dataclass(frozen=True, slots=True)
class Concentration:
    """How many times a notch raises the stress that counts in fatigue: bent, and twisted."""

    bent: float
    twisted: float


CONCENTRATIONS = {
    "round": Concentration(1.0, 1.0),
    "flat": Concentration(1.5, 1.3),
    "keyway": Concentration(2.1, 3.0),
    "square": Concentration(1.6, 1.5),
    "hexagon": Concentration(1.3, 1.3),
    "spline": Concentration(2.0, 2.0),
    "shoulder": Concentration(1.7, 1.5),
    "sharp shoulder": Concentration(2.7, 2.2),
    "ring groove": Concentration(5.0, 3.0),
}
"""Kf and Kfs of shapes and notches (Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter Shafts and
shaft components, first estimates of stress concentration; a shoulder has a radius of a tenth of the diameter)."""
STEEL_LIMIT, ALUMINIUM_LIMIT = 700e6, 130e6
"""Pa that the fatigue limit of a polished specimen does not pass, however strong the material is (the same, chapter
Fatigue failure resulting from variable loading)."""
SURFACE, SURFACE_POWER = 4.51, -0.265
"""Of machined surfaces, of a strength in MPa (the same, Marin factors, 10th edition)."""
SIZE, SIZE_POWER = 1.24, -0.107
LARGE_SIZE, LARGE_SIZE_POWER = 1.51, -0.157
LARGE = 51e-3
"""m from which the size factor follows the second law; of a diameter in mm (the same, Marin factors)."""


def concentration(shape: str, notch: str | None) -> Concentration:
    """Of a shape with a notch the larger of both.

    Args:
        shape: one of SHAPES.
        notch: one of NOTCHES; None where there is none.
    """
    both = [CONCENTRATIONS[name] for name in (shape, notch) if name is not None]
    return Concentration(max(c.bent for c in both), max(c.twisted for c in both))
