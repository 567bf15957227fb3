"""Usual values for what somebody has not looked up, each with what it is usual of; never put in by themselves."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from ydrometer.base.tables.bearings import usual_outsides
from ydrometer.base.tables.typical import RADIAL_RATINGS
from ydrometer.base.units import digits
from ydrometer.document.design import Design
from ydrometer.document.sources import Motor, Source
from ydrometer.document.walk import stages_with_paths
from ydrometer.loads.bearings import CHECK as LIFE
from ydrometer.loads.rows import UseRow
from ydrometer.loads.sources import RADIAL

_ITEM = re.compile(r"fit\.shafts\[(\d+)\]\.stack\.items\[(\d+)\]\.outside")

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
    kinds = (_of_windings, _of_stages, _of_motors, _of_bearings)
    return [offer for kind in kinds for offer in kind(design, row)]


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


def _of_motors(design: Design, row: UseRow) -> Iterator[Offer]:
    """The middle of what motors of its mass stand across their shafts."""
    for path in row.needs if row.check == RADIAL else ():
        mass = next((source.mass for name, source in _sources(design) if path == f"{name}.radial_rating"), None)
        for words, (low, high) in RADIAL_RATINGS if mass else ():
            yield Offer(path, f"{digits(0.5 * (low + high) * (mass or 0.0), 2)} N", f"a {words} of its mass")


def _sources(design: Design) -> Iterator[tuple[str, Source]]:
    for b, branch in enumerate(design.drive.branches):
        yield f"drive.branches[{b}].source", branch.source


def _of_bearings(design: Design, row: UseRow) -> Iterator[Offer]:
    """The outsides of usual bearings of its bore and width."""
    for path in row.needs if row.check == LIFE else ():
        at = _ITEM.fullmatch(path)
        if at is None or design.fit is None:
            continue
        shaft = design.fit.shafts[int(at[1])]
        if shaft.stack is not None and shaft.diameter is not None:
            for outside in usual_outsides(shaft.diameter, shaft.stack.items[int(at[2])].width):
                yield Offer(path, f"{1e3 * outside:.4g} mm", "a usual ball bearing of its bore and width")
