"""What is inside a closed stage, as a cut with the right proportions: what a kind of box says of its picture.

Lengths are relative to nothing but each other: a kind is told how high its case is, m, and lays its pieces out in that.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

WALL = 1.12
"""Height of a case relative to the largest circle in it."""
LENGTH = 1.5
"""Length of a case that shows nothing, relative to its height."""

BoxPartForm = Literal["solid", "rim", "roller", "wheel", "thick wheel", "worm", "outline"]
"""How a piece is painted: filled, a thick circle, a thin one, a thin or thick one with its axis, a worm across the
line, or a closed outline."""


@dataclass(frozen=True, slots=True)
class BoxPart:
    """A piece inside a box: a circle of `radius`, of a worm half its thickness; `step` counts from 0.

    Of an outline `radii` and `angles` are its points about the middle, m and rad; other forms have none.
    """

    form: BoxPartForm
    step: int
    x: float
    y: float
    radius: float
    radii: tuple[float, ...] = ()
    angles: tuple[float, ...] = ()


@dataclass(frozen=True, slots=True)
class Inside:
    """A case of this length and height, m, and its pieces from x = 0 at its near face.

    `steps` are numbers that stand below it, evenly along it; nothing stands there where it is empty.
    """

    length: float
    height: float
    parts: tuple[BoxPart, ...] = ()
    steps: tuple[float, ...] = ()

    def placed(self, near: float) -> list[BoxPart]:
        """The pieces where the near face of the case stands at x = near."""
        return [replace(part, x=part.x + near) for part in self.parts]


def closed(height: float) -> Inside:
    """A case that shows nothing.

    Args:
        height: of the case, m.
    """
    return Inside(LENGTH * height, height)
