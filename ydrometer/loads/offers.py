"""Usual values for what somebody has not looked up, each with what it is usual of; never put in by themselves."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ydrometer.document.design import Design
from ydrometer.document.sources import Motor
from ydrometer.document.walk import stages_with_paths
from ydrometer.loads.rows import UseRow

INSULATION = {"B": "130 degC", "F": "155 degC", "H": "180 degC"}
"""What windings stand, by the class of their insulation (IEC 60085, Electrical insulation: Thermal evaluation and
designation)."""


@dataclass(frozen=True, slots=True)
class Offer:
    """A usual value: the path that it would be put at, as typed, and what it is usual of."""

    path: str
    value: str
    of: str


def offers(design: Design, row: UseRow) -> list[Offer]:
    """Usual values of what a row wants or has assumed; none where the document says it."""
    return list(_of_windings(design, row)) + list(_of_stages(design, row))


def _of_windings(design: Design, row: UseRow) -> Iterator[Offer]:
    if row.check != "winding_temperature":
        return
    for b, branch in enumerate(design.drive.branches):
        path = f"drive.branches[{b}].source"
        if row.path == path and isinstance(branch.source, Motor) and branch.source.winding_limit is None:
            for name, limit in INSULATION.items():
                yield Offer(f"{path}.winding_limit", limit, f"insulation of class {name}")


def _of_stages(design: Design, row: UseRow) -> Iterator[Offer]:
    stage = dict(stages_with_paths(design)).get(row.path)
    for key, value, of in stage.offers(row.check) if stage else ():
        yield Offer(f"{row.path}.{key}", value, of)
