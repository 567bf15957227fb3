"""Wheels of each form, with the phase at which they mesh."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

from ydrometer.document.stages import Member
from ydrometer.document.stages.forms import Form, FormName
from ydrometer.drawing import teeth as outlines
from ydrometer.drawing.shapes import DrawnWheel, Tooth

BELT_LINE = 0.11
"""How far a belt pulley's rim lies inside its pitch circle, relative to the pitch (ISO 13050, Synchronous belt drives:
Metric pitch, curvilinear profiles, pitch line differential; middle of the range)."""
ROLLER = 0.625
"""Roller diameter of a chain relative to its pitch (ISO 606, Short-pitch transmission precision roller and bush chains,
common sizes); half of it stands over the pitch circle."""
UPRIGHT = 0.5 * math.pi
"""Phase of wheels that mesh with nothing: a tooth stands up, rad."""


class Spot(NamedTuple):
    """Where a wheel is drawn: the path of its stage, its name there, where the document has its measure, its shaft's
    number, x and y, m, and which way it turns.
    """

    path: str
    member: str
    place: str
    shaft: int
    x: float
    y: float
    rotation: int

    @classmethod
    def of(cls, member: Member, path: str, shaft: int, x: float, rotation: int) -> Spot:
        """Of a wheel of the stage at a path."""
        return cls(path, member.name, f"{path}.{member.key}", shaft, x, 0.0, rotation)


class _Outline(NamedTuple):
    """Radius over all that is drawn of a wheel, m, and its tooth."""

    outer: float
    tooth: Tooth | None


def wheel(
    spot: Spot,
    form: Form,
    size: float,
    measure: float,
    *,
    angle: float = 0.0,
    phase: float | None = None,
    rim: float | None = None,
) -> DrawnWheel:
    """A wheel as it is drawn.

    Args:
        spot: where.
        form: of the wheel.
        size: module or pitch, m, 0 where it has no teeth.
        measure: teeth, or a diameter, m.
        angle: of pressure, rad, of teeth that mesh.
        phase: angle of the middle of a tooth, rad; upright where it is not given.
        rim: radius over the rim of a ring, or of a wheel without teeth, m, where that is known.
    """
    radius = form.pitch_radius(size, measure)
    outline = _OUTLINES.get(form.name, _plain)(form, size, measure, angle)
    teeth = int(measure) if form.toothed else None
    outer = outline.outer if rim is None or (form.toothed and not form.encloses) else rim
    turned = (UPRIGHT if form.toothed else 0.0) if phase is None else phase
    return DrawnWheel(
        path=spot.path,
        member=spot.member,
        place=spot.place,
        form=form.name,
        noun=form.noun,
        least=form.least,
        shaft=spot.shaft,
        x=spot.x,
        y=spot.y,
        pitch_radius=radius,
        outer_radius=outer,
        teeth=teeth,
        tooth=outline.tooth,
        phase=turned,
        rotation=spot.rotation,
    )


def _gear(form: Form, size: float, teeth: float, angle: float) -> _Outline:
    return _Outline(0.5 * size * teeth + size, outlines.involute(int(teeth), size, angle, internal=False))


def _ring(form: Form, size: float, teeth: float, angle: float) -> _Outline:
    return _Outline(form.outer_radius(size, teeth), outlines.involute(int(teeth), size, angle, internal=True))


def _pulley(form: Form, pitch: float, teeth: float, angle: float) -> _Outline:
    rim = form.pitch_radius(pitch, teeth) - BELT_LINE * pitch
    return _Outline(rim, outlines.pulley(int(teeth), pitch, rim))


def _sprocket(form: Form, pitch: float, teeth: float, angle: float) -> _Outline:
    return _Outline(form.pitch_radius(pitch, teeth) + 0.5 * ROLLER * pitch, outlines.sprocket(int(teeth), pitch))


def _bevel(form: Form, size: float, teeth: float, angle: float) -> _Outline:
    return _Outline(form.pitch_radius(size, teeth) * (1.0 + 2.0 / teeth), None)


def _plain(form: Form, size: float, diameter: float, angle: float) -> _Outline:
    return _Outline(form.outer_radius(size, diameter), None)


_OUTLINES: dict[FormName, Callable[[Form, float, float, float], _Outline]] = {
    "gear": _gear,
    "ring": _ring,
    "pulley": _pulley,
    "sprocket": _sprocket,
    "bevel": _bevel,
}


def meshing_phase(before: DrawnWheel, teeth: int, *, ring: bool) -> float:
    """The phase of the next gear to the right, so that one of its gaps takes the tooth of `before` nearest to it.

    Arcs along both pitch circles are equal at the contact. A gear is met to the right; a ring, whose middle lies to the
    right, to the left, and its angles run the same way.
    """
    assert before.teeth is not None  # only gears have a next one in the row
    contact = math.pi if ring else 0.0
    each = 2.0 * math.pi / before.teeth
    past = (before.phase - contact + 0.5 * each) % each - 0.5 * each
    turned = past * before.teeth / teeth
    gap = contact + turned if ring else math.pi - turned
    return gap + math.pi / teeth
