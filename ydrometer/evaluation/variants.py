"""The same design with one thing changed: another drive, another vehicle, more motors, more cells."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from ydrometer.document.design import Document
from ydrometer.document.supply import Battery

# The values by path of a variant are those of the design it came from: nothing that is asked of one needs them.


def with_drive(document: Document, **parts: Any) -> Document:
    """The design with other parts of its drive."""
    design = document.design
    return replace(document, design=replace(design, drive=replace(design.drive, **parts)))


def with_vehicle(document: Document, **values: Any) -> Document:
    """The design with other values of its vehicle."""
    design = document.design
    return replace(document, design=replace(design, vehicle=replace(design.vehicle, **values)))


def with_count(document: Document, count: int) -> Document:
    """The design with so many sources in its first branch."""
    first, *others = document.design.drive.branches
    return with_drive(document, branches=(replace(first, count=count), *others))


def series_of(document: Document) -> int | None:
    """Cells in series of the design's battery; None where it is not given by its cells."""
    supply = document.design.drive.supply
    return supply.cells.series if isinstance(supply, Battery) and supply.cells is not None else None


def with_series(document: Document, series: int) -> Document:
    """The design with so many cells in series, its battery being given by its cells."""
    supply = document.design.drive.supply
    assert isinstance(supply, Battery) and supply.cells is not None
    return with_drive(document, supply=replace(supply, cells=replace(supply.cells, series=series)))
