"""The `build` section of a design: in which of the usual ways its builder works, one choice for the vehicle."""

from __future__ import annotations

from dataclasses import dataclass

from ydrometer.base import reading

LOCKING = ("locker", "lock nuts")
"""What keeps screws from backing out."""
BACKLASH = ("paper", "rim", "ear")
"""How the play of two gears is set: by a strip of paper, by what is felt at the rim, or by ear."""
TENSION = ("push", "pluck", "twist")
"""How the tension of a belt is judged: pushed in, by the sound of a plucked run, or turned between two fingers."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Building:
    """The schools of a vehicle's builder; each has its own numbers, and none is wrong."""

    locking: str = reading.choice(LOCKING, default="locker")
    backlash: str = reading.choice(BACKLASH, default="paper")
    tension: str = reading.choice(TENSION, default="push")
