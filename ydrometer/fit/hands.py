"""Numbers for the hands: paper for backlash, force and note for belt tension."""

from __future__ import annotations

import math


def paper_for(backlash: float, pressure_angle: float) -> float:
    """Thickness of a strip of paper, m, that leaves this backlash when it is run through the mesh and taken out.

    It lies on both flanks of a tooth, each time along the line of action: j = 2·t/cos(phi).

    Args:
        backlash: wanted at the pitch circle, m.
        pressure_angle: rad.
    """
    return 0.5 * backlash * math.cos(pressure_angle)


def push(tension: float, span: float, deflection: float) -> float:
    """Force at mid-span, N, that moves a taut run by `deflection`: 4·T·d/L for a small d (statics of a string).

    Args:
        tension: of the run, N.
        span: its length, m.
        deflection: m, small against the span.
    """
    return 4.0 * tension * deflection / span


def note(tension: float, span: float, mass_per_length: float) -> float:
    """Frequency of a plucked run, Hz: sqrt(T/mu)/(2·L) (a string's first tone).

    Args:
        tension: N.
        span: m.
        mass_per_length: of the belt, kg/m.
    """
    return math.sqrt(tension / mass_per_length) / (2.0 * span)
