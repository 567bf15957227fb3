"""A design on its plate, with a bin at hand: where all stands, what clashes, the numbers for the hands, the ways."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.design import Document
from ydrometer.drawing.plan import PlanDrawing, draw_plan
from ydrometer.errors import DocumentError, Fault
from ydrometer.fit.at_hand import NOTHING, AtHand
from ydrometer.fit.clash import Clash
from ydrometer.fit.clashes import clashes
from ydrometer.fit.line import plane
from ydrometer.fit.places import Ways, ways
from ydrometer.fit.sections import Section, sections
from ydrometer.fit.settings import StageSettings, settings
from ydrometer.fit.setup import Setup
from ydrometer.fit.standing import stands
from ydrometer.mounting import Mounting
from ydrometer.parts.read import read_parts


@dataclass(frozen=True, slots=True)
class Mounted:
    """What Fit shows of a design. `elsewhere`: stages behind one that turns the axis, which are on another plate."""

    plan: PlanDrawing
    clashes: list[Clash]
    settings: list[StageSettings]
    sections: list[Section]
    elsewhere: list[str]


def mounted(document: Document, hand: AtHand = NOTHING) -> Mounted:
    """A design as it stands on its plate.

    Args:
        document: with a `fit` section or without; then shafts stand in a row, as far apart as they have to.
        hand: what a bin has for it.
    """
    setup = setup_of(document, hand)
    found = clashes(setup)
    return Mounted(
        plan=draw_plan(setup, found),
        clashes=found,
        settings=settings(setup),
        sections=sections(setup.mounting, setup.hand),
        elsewhere=setup.plane.elsewhere,
    )


def places(document: Document, hand: AtHand = NOTHING) -> Ways:
    """All ways to place the shafts on the plate.

    Args:
        document: with a plate.
        hand: what a bin has for it; where a stage has no length, those at hand are tried.

    Raises:
        DocumentError: there is no plate, or two shafts in slots are tied to each other.
    """
    try:
        return ways(setup_of(document, hand))
    except ValueError as error:
        raise DocumentError([Fault("fit", str(error), "give what is missing, then ask again")]) from None


def setup_of(document: Document, hand: AtHand = NOTHING) -> Setup:
    """A design with its plane, where all stands, and what is at hand."""
    mounting = document.design.fit or Mounting()
    found = plane(document.design, hand)
    return Setup(document.design, mounting, found, stands(found, mounting), hand)


def at_hand(parts: Sequence[Mapping[str, Any]]) -> AtHand:
    """What of a bin Fit uses; lengths and spacers only where some are owned.

    Args:
        parts: documents of the bin's parts, read before.
    """
    belts: dict[float, set[int]] = defaultdict(set)
    chains: dict[float, set[int]] = defaultdict(set)
    spacers: dict[float, dict[float, int]] = defaultdict(lambda: defaultdict(int))
    bores: dict[tuple[str, float, int], list[tuple[float, str]]] = defaultdict(list)
    v_belts: set[float] = set()
    rims: dict[float, float] = {}
    flanges: dict[tuple[float, int], float] = {}
    widths: dict[tuple[str, float, int], float] = {}
    sleeves: list[tuple[float, float]] = []
    adapters: list[tuple[float, str, float, str]] = []
    used = [raw for raw in parts if raw["kind"] in _USED]
    for part in read_parts(used):
        row: Any = part
        owned = row.owned > 0
        if row.kind == "belt" and owned:
            belts[row.pitch].add(row.teeth)
        elif row.kind == "chain" and owned and row.links:
            chains[row.pitch].add(row.links)
        elif row.kind == "v_belt" and owned:
            v_belts.add(row.length)
        elif row.kind == "spacer" and owned and row.bore:
            spacers[row.bore][row.thickness] += row.owned
        elif row.kind == "sleeve" and owned:
            sleeves.append((row.shaft, row.outside))
        elif row.kind == "adapter" and owned and row.outside:
            adapters.append((row.shaft, row.shaft_shape, row.outside, row.outside_shape))
        elif row.kind in _WHEELS:
            number = row.teeth if row.kind != "v_pulley" else round(1e6 * row.pitch_diameter)
            key = (_WHEELS[row.kind], round(0.0 if row.kind == "v_pulley" else row.size, 9), number)
            if row.bore:
                bores[key].append((row.bore, row.bore_shape))
            if row.width:
                widths[key] = max(row.width, widths.get(key, 0.0))
        if row.kind == "v_pulley" and row.outside_diameter:
            rims[round(row.pitch_diameter, 6)] = row.outside_diameter
        elif row.kind == "pulley" and row.flange_diameter:
            flanges[row.pitch, row.teeth] = row.flange_diameter
    return AtHand(
        belts={pitch: tuple(sorted(teeth)) for pitch, teeth in belts.items()},
        chains={pitch: tuple(sorted(links)) for pitch, links in chains.items()},
        v_belts=tuple(sorted(v_belts)),
        spacers={bore: dict(stock) for bore, stock in spacers.items()},
        bores={key: tuple(found) for key, found in bores.items()},
        rims=rims,
        flanges=flanges,
        widths=widths,
        sleeves=tuple(sleeves),
        adapters=tuple(adapters),
    )


_WHEELS = {"gear": "gear", "pulley": "pulley", "sprocket": "sprocket", "v_pulley": "grooved"}
_USED = {*_WHEELS, "belt", "chain", "v_belt", "spacer", "sleeve", "adapter"}
