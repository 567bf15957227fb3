"""Trying a wheel in sizes below and above its own: the same design, one tooth count or running diameter changed."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Mapping
from typing import Any

from ydrometer.base.errors import YdrometerError
from ydrometer.document.design import Design, Document
from ydrometer.document.stages import Stage
from ydrometer.document.walk import place_of, stage_at

SPAN = 6
"""Sizes tried on either side."""


class PathError(YdrometerError):
    """A path that leads to no wheel of the design."""

    code = "path"


def variants(document: Document, path: str, member: str) -> list[tuple[float, Document | None]]:
    """The design with one wheel in 2·SPAN + 1 sizes, the present one in the middle.

    Args:
        document: the design.
        path: of a stage, such as "drive.branches[0].stages[0]".
        member: "driver", "driven" or "idler 1", "idler 2" ….

    Returns:
        Pairs of size (teeth, or the diameter of a wheel without any, m) and design; None for one that cannot be
        (too few teeth, a ring too small).

    Raises:
        PathError: no such wheel.
    """
    stage = stage_at(document.design, path)
    wheel = None if stage is None else stage.member(member)
    if wheel is None:
        raise PathError(f'there is no wheel "{member}" at "{path}"', path=path, member=member)
    step = 1 if wheel.form.toothed else diameter_step(wheel.measure)
    sizes = [wheel.measure + step * place for place in range(-SPAN, SPAN + 1)]
    return [(size, with_wheels(document, path, {member: size})) for size in sizes]


def diameter_step(diameter: float) -> float:
    """A round step, about a twentieth of a diameter, m: 1, 2 or 5 times a power of ten."""
    rough = diameter / 20.0
    power = 10.0 ** math.floor(math.log10(rough))
    return power * min((1.0, 2.0, 5.0, 10.0), key=lambda n: abs(math.log(n * power / rough)))


def with_wheels(document: Document, path: str, sizes: Mapping[str, float]) -> Document | None:
    """The design with other sizes of wheels of one stage; None where that cannot be.

    Args:
        document: the design.
        path: of a stage that is there.
        sizes: teeth, or diameters in m, by "driver", "driven", "idler 1" ….
    """
    stage = stage_at(document.design, path)
    resized = None if stage is None else stage.resized(sizes)
    return None if resized is None else with_stage(document, path, resized)


def with_stage(document: Document, path: str, stage: Stage) -> Document:
    """The design with another stage at a path that is there."""
    # Its values by path are those of the design it came from: nothing that is asked of a variant needs them.
    return dataclasses.replace(document, design=put_stage(document.design, path, stage))


def put_stage(design: Design, path: str, stage: Stage) -> Design:
    """A design with another stage at a path that is there."""
    branch, index = place_of(path)
    drive = design.drive
    if branch is None:
        drive = dataclasses.replace(drive, stages=_swapped(drive.stages, index, stage))
    else:
        own = drive.branches[branch]
        changed = dataclasses.replace(own, stages=_swapped(own.stages, index, stage))
        drive = dataclasses.replace(drive, branches=_swapped(drive.branches, branch, changed))
    return dataclasses.replace(design, drive=drive)


def _swapped(items: tuple[Any, ...], index: int, item: Any) -> tuple[Any, ...]:
    return (*items[:index], item, *items[index + 1 :])
