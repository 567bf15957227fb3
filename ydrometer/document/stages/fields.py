"""Fields that several kinds of stages declare."""

from __future__ import annotations

from typing import Any

from ydrometer.base import reading
from ydrometer.base.labels import labelled, parts, strength
from ydrometer.base.tables.strengths import MATERIAL_NAMES
from ydrometer.document.stages.forms import LEAST_TEETH, MOST_DIAMETER, MOST_TEETH
from ydrometer.document.stages.hubs import Hub


def teeth() -> Any:
    """A field holding a number of teeth."""
    return reading.whole(LEAST_TEETH, MOST_TEETH)


def efficiency() -> Any:
    """The optional field every stage takes."""
    optional = reading.quantity("ratio", above=0.0, at_most=1.0, default=None)
    return labelled("Efficiency (empty: assumed)", optional)


def ratio_field() -> Any:
    """The ratio of a stage that is known by it alone."""
    return labelled("Ratio, driver turns per driven turn", reading.quantity("ratio", above=0.0, at_most=1e6))


def pitch() -> Any:
    """The pitch of a belt or chain; needed for drawing and Fit alone."""
    return labelled("Pitch", reading.quantity("length", above=0.0, at_most=1.0, default=None))


def diameter(label: str) -> Any:
    """A field holding the diameter on which a wheel without teeth works."""
    return labelled(label, reading.quantity("length", above=0.0, at_most=MOST_DIAMETER))


def slip_field(label: str, usual: float) -> Any:
    """A field holding the share by which a driven wheel lags, assumed where it is not given."""
    return labelled(label, reading.quantity("ratio", at_least=0.0, at_most=0.5, default=usual, assumed=True))


def width() -> Any:
    """How wide a wheel or what runs on it is; needed for Fit and Loads."""
    return strength("Width", reading.quantity("length", above=0.0, default=None))


def torque_rating() -> Any:
    """What a bought box stands at its output; in the lowest gear where it has several."""
    return strength("Torque rating, at the output", reading.quantity("torque", above=0.0, default=None))


def max_speed() -> Any:
    """The fastest that a bought box's input may turn."""
    return strength("Fastest speed of its input", reading.quantity("angular speed", above=0.0, default=None))


def hub(end: str) -> Any:
    """A field that says how a wheel is held on its shaft.

    Args:
        end: driver or driven.
    """
    return parts(Hub, reading.nested(Hub, default=None), group=f"{end.capitalize()} on its shaft")


def material(label: str) -> Any:
    """A field holding one of the materials of which it is known what they stand."""
    return strength(label, reading.choice(MATERIAL_NAMES, default=None))


def allowed_stress(label: str) -> Any:
    """A field holding a stress that teeth stand; it goes before that of a material."""
    return strength(label, reading.quantity("stress", above=0.0, default=None))
