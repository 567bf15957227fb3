"""What Fit says does not go together, at the steps that would meet it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

from ydrometer.build.step import Step
from ydrometer.build.workshop import BuildShop, plate_path
from ydrometer.fit.clash import Clash
from ydrometer.fit.clashes import clashes

ADAPTERS = "fit.adapters["
"""How paths begin of what is made by itself."""
CUT = "drill"
"""The verb with which places become holes."""


def with_clashes(shop: BuildShop, steps: Sequence[Step]) -> list[Step]:
    """Steps, each with the clashes that it would run into: those of a plate before it is drilled, and those of a stage
    or shaft where it is put together.

    Args:
        shop: of the design; without a `fit` section nobody has said where anything stands, and nothing is told.
        steps: of it.
    """
    if shop.design.fit is None:
        return list(steps)
    meets: dict[str, list[str]] = {}
    for place, clash in _told(shop):
        for step in _met(place, clash, steps):
            meets.setdefault(step.id, []).append(clash.text)
    return [replace(step, clashes=tuple(dict.fromkeys(meets.get(step.id, ())))) for step in steps]


def _told(shop: BuildShop) -> Iterator[tuple[str, Clash]]:
    """All that does not go, with the path of the plate on which it is."""
    for setup in shop.plates:
        yield from ((plate_path(setup), clash) for clash in clashes(setup) if clash.level == "clash")


def _met(plate: str, clash: Clash, steps: Sequence[Step]) -> Iterator[Step]:
    """The steps that meet a clash: the drilling of its plate, and on each unit the first one at its place."""
    yield from (step for step in steps if plate in step.parts and step.id.partition("@")[0].endswith(f":{CUT}"))
    if clash.path.startswith(ADAPTERS):
        yield from (step for step in steps if step.place == clash.path and step.kind == "make")
        return
    at_place = [step for step in steps if step.place == clash.path and step.kind not in ("make", "plate")]
    at_stage = [step for step in at_place if step.kind not in ("shaft", "bearing", "motor")]
    for unit in dict.fromkeys(step.unit for step in at_place):
        yield next(step for step in at_stage or at_place if step.unit == unit)
