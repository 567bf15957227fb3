"""What usual deep-groove ball bearings carry, by their sizes (ISO 15, Rolling bearings: Radial bearings, boundary
dimensions; ISO 281, Rolling bearings: Dynamic load ratings and rating life; the low end of makers' catalogues).
"""

from __future__ import annotations

_BEARINGS = (
    # bore outside width mm  C kN
    (3.0, 10.0, 4.0, 0.63),
    (4.0, 13.0, 5.0, 1.3),
    (5.0, 16.0, 5.0, 1.7),
    (6.0, 19.0, 6.0, 2.2),
    (8.0, 22.0, 7.0, 3.3),
    (10.0, 26.0, 8.0, 4.6),
    (10.0, 30.0, 9.0, 5.1),
    (12.0, 28.0, 8.0, 5.1),
    (12.0, 32.0, 10.0, 6.8),
    (15.0, 32.0, 9.0, 5.6),
    (17.0, 35.0, 10.0, 6.0),
    (20.0, 42.0, 12.0, 9.4),
    (25.0, 47.0, 12.0, 10.1),
)
WITHIN = 0.1e-3
"""m by which a size may be off."""
REVOLUTIONS = 1e6
"""Turns that a bearing lasts under its load rating, of nine in ten."""
LIFE_POWER = 3.0
"""Of ball bearings."""


def usual_outsides(bore: float, width: float) -> list[float]:
    """Outside diameters of the usual ball bearings of a bore and a width, m.

    Args:
        bore: m.
        width: m.
    """
    return [
        1e-3 * outside
        for inside, outside, wide, _ in _BEARINGS
        if max(abs(1e-3 * inside - bore), abs(1e-3 * wide - width)) <= WITHIN * (1.0 + 1e-9)
    ]


def load_rating(bore: float, outside: float, width: float) -> float | None:
    """The dynamic load rating of a ball bearing of these sizes, N; None of one that is not usual.

    Args:
        bore: m.
        outside: m.
        width: m.
    """
    sizes = (bore, outside, width)
    for *usual, kilonewtons in _BEARINGS:
        if all(abs(1e-3 * mm - size) <= WITHIN * (1.0 + 1e-9) for mm, size in zip(usual, sizes, strict=True)):
            return 1e3 * kilonewtons
    return None
