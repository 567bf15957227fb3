"""What Fit says does not go together, at the steps that would meet it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

from ydrometer.build import plates
from ydrometer.build.step import Step
from ydrometer.build.workshop import BuildShop
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
    at: dict[str, list[Step]] = {}
    for step in steps:
        at.setdefault(step.place, []).append(step)
    meets: dict[str, dict[str, None]] = {}
    for plate, clash in _told(shop):
        for step in (*_cutting(at.get(plate, ())), *_meeting(clash.path, at.get(clash.path, ()))):
            meets.setdefault(step.id, {})[clash.text] = None
    return [replace(step, clashes=tuple(meets.get(step.id, ()))) for step in steps]


def _told(shop: BuildShop) -> Iterator[tuple[str, Clash]]:
    """All that does not go, with the place of the steps that make its plate."""
    for setup in shop.plates:
        yield from ((plates.place_of(setup), clash) for clash in clashes(setup) if clash.level == "clash")


def _cutting(there: Sequence[Step]) -> Iterator[Step]:
    """The drilling of a plate, on each unit."""
    return (step for step in there if step.id.partition("@")[0].endswith(f":{CUT}"))


def _meeting(path: str, there: Sequence[Step]) -> Iterator[Step]:
    """The first step at a place on each unit: of a stage rather than of what turns there; of an adapter its making."""
    if path.startswith(ADAPTERS):
        yield from (step for step in there if step.kind == "make")
        return
    at_place = [step for step in there if step.kind not in ("make", "plate")]
    at_stage = [step for step in at_place if step.kind not in ("shaft", "bearing", "motor")]
    for unit in dict.fromkeys(step.unit for step in at_place):
        yield next(step for step in at_stage or at_place if step.unit == unit)
