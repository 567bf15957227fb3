"""Numbers for the hands: paper for play, force and note for belt tension, sag for a chain, the straight edge."""

from __future__ import annotations

import math


def paper_for(play: float, pressure_angle: float) -> float:
    """Thickness of a strip of paper, m, that leaves this play when it is run through the mesh and taken out.

    It lies on both flanks of a tooth, each time along the line of action: j = 2·t/cos(phi).

    Args:
        play: wanted at the pitch circle, m.
        pressure_angle: rad.
    """
    return 0.5 * play * math.cos(pressure_angle)


def play_from(paper: float, pressure_angle: float) -> float:
    """The play, m, that a strip of paper leaves.

    Args:
        paper: its thickness, m.
        pressure_angle: rad.
    """
    return 2.0 * paper / math.cos(pressure_angle)


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


def tension_of(frequency: float, span: float, mass_per_length: float) -> float:
    """The tension, N, of a run that sounds at a frequency: 4·mu·L²·f².

    Args:
        frequency: Hz.
        span: m.
        mass_per_length: kg/m.
    """
    return 4.0 * mass_per_length * span**2 * frequency**2


def sag(span: float, slack: float) -> float:
    """Depth at mid-span, m, to which a run hangs that is `slack` longer than the span: sqrt(3·L·e/8).

    A shallow parabola of span L and depth s is L·(1 + 8/3·(s/L)²) long.

    Args:
        span: m.
        slack: m, small against the span.
    """
    return math.sqrt(3.0 * span * slack / 8.0)


def slack_for(span: float, depth: float) -> float:
    """How much longer than its span a run is, m, that hangs to a depth: 8·s²/(3·L).

    Args:
        span: m.
        depth: m.
    """
    return 8.0 * depth**2 / (3.0 * span)
