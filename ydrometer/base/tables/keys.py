"""Parallel keys by the diameter of their shaft (ISO/R 773, Rectangular or square parallel keys and their corresponding
keyways, table 1; DIN 6885-1).
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Key:
    """A section: the widest shaft that it is for, its width, its height, its depth in hub and shaft; all m."""

    shaft: float
    width: float
    height: float
    in_hub: float
    in_shaft: float


_MM = (
    (8, 2, 2, 1.0, 1.2),
    (10, 3, 3, 1.4, 1.8),
    (12, 4, 4, 1.8, 2.5),
    (17, 5, 5, 2.3, 3.0),
    (22, 6, 6, 2.8, 3.5),
    (30, 8, 7, 3.3, 4.0),
    (38, 10, 8, 3.3, 5.0),
    (44, 12, 8, 3.3, 5.0),
    (50, 14, 9, 3.8, 5.5),
    (58, 16, 10, 4.3, 6.0),
    (65, 18, 11, 4.4, 7.0),
    (75, 20, 12, 4.9, 7.5),
    (85, 22, 14, 5.4, 9.0),
    (95, 25, 14, 5.4, 9.0),
    (110, 28, 16, 6.4, 10.0),
)
KEYS = tuple(Key(*(1e-3 * size for size in row)) for row in _MM)
LEAST_SHAFT = 6e-3
"""m; no wider than this, a shaft has no key of the table."""
LENGTHS = tuple(
    1e-3 * size for size in (6, 8, 10, 12, 14, 16, 18, 20, 22, 25, 28, 32, 36, 40, 45, 50, 56, 63, 70, 80, 90, 100)
)
"""Usual lengths, m."""


def key_for(shaft: float) -> Key | None:
    """The section for a shaft; None where the table has none.

    Args:
        shaft: its diameter, m.
    """
    if shaft <= LEAST_SHAFT:
        return None
    return next((key for key in KEYS if shaft <= key.shaft + 1e-6), None)


def length_in(hub: float) -> float | None:
    """The longest usual key that a hub takes, m; None where it is too narrow for any.

    Args:
        hub: its width, m.
    """
    return max((length for length in LENGTHS if length <= hub + 1e-6), default=None)
