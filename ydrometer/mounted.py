"""A design on its plate, with a bin at hand: where all stands, what clashes, the numbers for the hands, the ways."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.design import Document
from ydrometer.drawing.plan import PlanDrawing, draw_plan
from ydrometer.errors import DocumentError, Fault
from ydrometer.fit.at_hand import NOTHING, AtHand, WheelKey, wheel_key
from ydrometer.fit.clash import Clash
from ydrometer.fit.clashes import clashes
from ydrometer.fit.sections import Section, sections
from ydrometer.fit.settings import StageSettings, settings
from ydrometer.fit.setup import Setup, set_up
from ydrometer.fit.ways import Ways, ways
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
    return set_up(document.design, hand)


def at_hand(parts: Sequence[Mapping[str, Any]]) -> AtHand:
    """What of a bin Fit uses; what is no wheel only where some are owned.

    Args:
        parts: documents of the bin's parts, read before.
    """
    known: dict[str, list[Any]] = defaultdict(list)
    for part in read_parts([raw for raw in parts if raw["kind"] in _USED]):
        if part.kind in _WHEELS or part.owned:
            known[part.kind].append(part)
    wheels = [(_key(part), part) for kind in _WHEELS for part in known[kind]]
    return AtHand(
        belts=_gathered((belt.pitch, belt.teeth) for belt in known["belt"]),
        chains=_gathered((chain.pitch, chain.links) for chain in known["chain"] if chain.links),
        v_belts=tuple(sorted({belt.length for belt in known["v_belt"]})),
        spacers=_stock(known["spacer"]),
        bores=_gathered((key, (part.bore, part.bore_shape)) for key, part in wheels if part.bore),
        rims={round(p.pitch_diameter, 6): p.outside_diameter for p in known["v_pulley"] if p.outside_diameter},
        flanges={(p.pitch, p.teeth): p.flange_diameter for p in known["pulley"] if p.flange_diameter},
        widths={key: max(found) for key, found in _gathered((k, p.width) for k, p in wheels if p.width).items()},
        sleeves=tuple((sleeve.shaft, sleeve.outside) for sleeve in known["sleeve"]),
        adapters=tuple((a.shaft, a.shaft_shape, a.outside, a.outside_shape) for a in known["adapter"] if a.outside),
    )


_WHEELS = {"gear": "gear", "pulley": "pulley", "sprocket": "sprocket", "v_pulley": "grooved"}
"""The form of a wheel by the kind of its part."""
_USED = {*_WHEELS, "belt", "chain", "v_belt", "spacer", "sleeve", "adapter"}


def _key(part: Any) -> WheelKey:
    if part.kind == "v_pulley":
        return wheel_key(_WHEELS[part.kind], 0.0, None, part.pitch_diameter)
    return wheel_key(_WHEELS[part.kind], part.size, part.teeth, 0.0)


def _gathered(pairs: Iterable[tuple[Any, Any]]) -> dict[Any, tuple[Any, ...]]:
    """All that there is of each, once and sorted."""
    found: dict[Any, set[Any]] = defaultdict(set)
    for key, value in pairs:
        found[key].add(value)
    return {key: tuple(sorted(values)) for key, values in found.items()}


def _stock(spacers: Iterable[Any]) -> dict[float, dict[float, int]]:
    """How many there are of each thickness, by bore."""
    found: dict[float, dict[float, int]] = defaultdict(lambda: defaultdict(int))
    for spacer in spacers:
        if spacer.bore:
            found[spacer.bore][spacer.thickness] += spacer.owned
    return {bore: dict(stock) for bore, stock in found.items()}
