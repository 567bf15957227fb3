"""A design on its plate, with a bin at hand: where all stands, what clashes, the numbers for the hands, the ways."""

from __future__ import annotations

from dataclasses import dataclass

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document.design import Document
from ydrometer.drawing.plan import PlanDrawing, draw_plan
from ydrometer.fit.clash import Clash
from ydrometer.fit.clashes import clashes
from ydrometer.fit.flanges import MadeAdapter, made_adapters
from ydrometer.fit.sections import Section, sections
from ydrometer.fit.settings import StageSettings, settings
from ydrometer.fit.setup import set_up
from ydrometer.fit.stock import NOTHING, Stock
from ydrometer.fit.ways import Ways, ways


@dataclass(frozen=True, slots=True)
class Mounted:
    """What Fit shows of a design. `elsewhere`: stages behind one that turns the axis, which are on another plate."""

    plan: PlanDrawing
    clashes: list[Clash]
    settings: list[StageSettings]
    sections: list[Section]
    adapters: list[MadeAdapter]
    elsewhere: list[str]


def mounted(document: Document, stock: Stock = NOTHING) -> Mounted:
    """A design as it stands on its plate.

    Args:
        document: with a `fit` section or without; then shafts stand in a row, as far apart as they have to.
        stock: what a bin has for it.
    """
    setup = set_up(document.design, stock)
    found = clashes(setup)
    return Mounted(
        plan=draw_plan(setup, found),
        clashes=found,
        settings=settings(setup),
        sections=sections(setup.mounting, setup.stock),
        adapters=made_adapters(setup.mounting),
        elsewhere=setup.plane.elsewhere,
    )


def places(document: Document, stock: Stock = NOTHING) -> Ways:
    """All ways to place the shafts on the plate.

    Args:
        document: with a plate.
        stock: what a bin has for it; where a stage has no length, those at hand are tried.

    Raises:
        DocumentError: there is no plate, or two shafts in slots are tied to each other.
    """
    try:
        return ways(set_up(document.design, stock))
    except ValueError as error:
        raise DocumentError([Fault("fit", str(error), "give what is missing, then ask again")]) from None
