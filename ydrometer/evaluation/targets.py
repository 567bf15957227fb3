"""Judging a measure against a target: the margin, and the word for how it stands."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ydrometer.document.target import Run, Target

TIGHT = 0.10
"""A target held by less than this margin is tight."""

Standing = Literal["holds", "tight", "misses", "unknown"]


@dataclass(frozen=True, slots=True)
class Verdict:
    """How a value stands against a target. `margin` is relative, None where it has no meaning."""

    value: float | None
    met: bool | None
    margin: float | None
    standing: Standing


def judge(target: Target, value: float | None, *, runs: bool) -> Verdict:
    """Compare a value with its target, both in the same unit.

    Args:
        target: its bounds.
        value: the measure, or None.
        runs: whether the design starts at all; a measure of a run that never happens misses its target,
            any other measure without a value is unknown, and so is how it stands where nothing is wanted of it.
    """
    if target.lower is None and target.upper is None:
        return Verdict(value, None, None, "unknown")
    if value is None:
        if not runs:
            return Verdict(None, False, -1.0, "misses")
        return Verdict(None, None, None, "unknown")
    met = (target.lower is None or value >= target.lower) and (target.upper is None or value <= target.upper)
    margins = []
    if target.lower is not None:
        margins.append(_share(value - target.lower, target.lower))
    if target.upper is not None:
        margins.append(_share(target.upper - value, target.upper))
    known = [margin for margin in margins if margin is not None]
    margin = min(known) if known and len(known) == len(margins) else None
    if not met:
        return Verdict(value, False, margin, "misses")
    return Verdict(value, True, margin, "tight" if margin is not None and margin < TIGHT else "holds")


def unbound(measure: str) -> Target:
    """A measure that is looked at without anything being wanted of it."""
    return Target(measure=measure, lower=None, upper=None, wanted="", run=Run())


def _share(distance: float, wanted: float) -> float | None:
    return distance / wanted if wanted else None
