"""A design on its plates, with a bin at hand: where all stands, what clashes, the numbers for the hands, the ways."""

from __future__ import annotations

from dataclasses import dataclass

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document.design import Document
from ydrometer.document.walk import stages_with_paths
from ydrometer.drawing.plan import PlanDrawing, draw_plan
from ydrometer.fit.clash import Clash
from ydrometer.fit.clashes import clashes
from ydrometer.fit.flanges import MadeAdapter, made_adapters
from ydrometer.fit.sections import Section, sections
from ydrometer.fit.setting_up import set_up, set_ups
from ydrometer.fit.settings import StageSettings, settings
from ydrometer.fit.setup import Setup
from ydrometer.fit.stock import NOTHING, Stock
from ydrometer.fit.ways import Ways, ways


@dataclass(frozen=True, slots=True)
class OnPlate:
    """What stands on one plate: its name in words, and the path of the stage that turns the axis in front of it, empty
    of the first plate.
    """

    name: str
    behind: str
    plan: PlanDrawing
    clashes: list[Clash]
    settings: list[StageSettings]
    sections: list[Section]


@dataclass(frozen=True, slots=True)
class Mounted:
    """What Fit shows of a design: its plates, the first one first, and its adapters between flanges."""

    plates: list[OnPlate]
    adapters: list[MadeAdapter]


def mounted(document: Document, stock: Stock = NOTHING) -> Mounted:
    """A design as it stands on its plates.

    Args:
        document: with a `fit` section or without; then shafts stand in a row, as far apart as they have to.
        stock: what a bin has for it.
    """
    setups = set_ups(document.design, stock)
    plates = [_on_plate(setup, number) for number, setup in enumerate(setups, 1)]
    return Mounted(plates, made_adapters(setups[0].mounting))


def _on_plate(setup: Setup, number: int) -> OnPlate:
    plate_clashes, behind = clashes(setup), setup.plane.behind
    stage = dict(stages_with_paths(setup.design)).get(behind)
    return OnPlate(
        name=f"plate {number}" + ("" if stage is None else f", behind the {stage.noun}"),
        behind=behind,
        plan=draw_plan(setup, plate_clashes),
        clashes=plate_clashes,
        settings=settings(setup),
        sections=sections(setup.mounting, setup.stock),
    )


def places(document: Document, stock: Stock = NOTHING, behind: str = "") -> Ways:
    """All ways to place the shafts on a plate.

    Args:
        document: with a plate.
        stock: what a bin has for it; where a stage has no length, those at hand are tried.
        behind: path of the stage that turns the axis in front of the plate; empty for the first plate.

    Raises:
        DocumentError: there is no such plate, or two shafts in slots are tied to each other.
    """
    try:
        return ways(set_up(document.design, stock, behind))
    except ValueError as error:
        raise DocumentError([Fault("fit", str(error), "give what is missing, then ask again")]) from None
