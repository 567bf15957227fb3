"""Whether the parts of the bin go on their shafts, and under their belts."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise
from typing import get_args

from ydrometer.document.mounting import ShaftMount
from ydrometer.document.stages.forms import GEAR
from ydrometer.document.walk import on_drum
from ydrometer.fit.along import NOISE
from ydrometer.fit.bores import SAME, Answer, Seat, in_gear, seat
from ydrometer.fit.clash import Clash, called, mm
from ydrometer.fit.coupling import Wheel
from ydrometer.fit.sections import sections
from ydrometer.fit.setup import Setup
from ydrometer.fit.stock import NOTHING, Stock

HOLDS = 1.0
"""Least engagement of a thread behind the plate relative to the bolt's diameter: one diameter, as is usual in steel
(Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter 8, Screws and fasteners)."""


def _has(stock: Stock, wanted: Seat, shaft: ShaftMount) -> bool:
    """Whether the sleeve or adapter that would make it is in the bin."""

    def same(first: float, second: float) -> bool:
        return abs(first - second) <= SAME

    across = shaft.diameter or 0.0
    if wanted.answer == "sleeve":
        return any(same(inside, across) and same(outside, wanted.size) for inside, outside in stock.sleeves)
    return wanted.answer == "adapter" and any(
        same(inside, across) and shape == shaft.shape and same(outside, wanted.size)
        for inside, shape, outside, _ in stock.adapters
    )


def bolts(setup: Setup) -> Iterator[Clash]:
    """Bolts go through the plate far enough to hold, and not so far that they touch what turns behind it."""
    thick = setup.mounting.plate.thickness if setup.mounting.plate else None
    for path in setup.plane.shafts:
        said = setup.shaft(path).bolts
        if said is None or said.length is None or thick is None:
            continue
        reach, name, at = said.length - thick, setup.plane.named(path), setup.at(path)
        if said.depth is not None and reach > said.depth + NOISE:
            text = f"bolts around the {name} go {mm(reach)} behind the plate, the thread takes {mm(said.depth)}"
            yield Clash("clash", f"{text}: shorter ones, or washers", path, reach - said.depth, at)
        elif reach < HOLDS * said.hole:
            text = f"bolts around the {name} reach {mm(max(0.0, reach))} behind the plate"
            yield Clash("mind", f"{text}, less than their own width", path, HOLDS * said.hole - reach, at)


def stacks(setup: Setup) -> Iterator[Clash]:
    """What is on a shaft has room between its faces, and the shaft reaches from one to the other."""
    for section in sections(setup.mounting, NOTHING):
        if section.shaft not in setup.stands:
            continue
        name, at = setup.plane.named(section.shaft), setup.at(section.shaft)
        names = ["the first face", *(item.name or "an item" for item in section.items), "the second face"]
        for (before, after), gap in zip(pairwise(names), section.gaps, strict=True):
            if gap < 0.0:
                text = f"on the {name}, {before} and {after} overlap by {mm(-gap)}"
                yield Clash("clash", text, section.shaft, -gap, at)
        if section.protrudes is not None and section.protrudes < -NOISE:
            text = f"the {name} ends {mm(-section.protrudes)} before the second face"
            yield Clash("clash", text, section.shaft, -section.protrudes, at)


def widths(setup: Setup) -> Iterator[Clash]:
    """A belt is no wider than its pulleys, as far as the bin knows them."""
    for coupling in setup.plane.couplings:
        wide = coupling.stage.loop_width
        if wide is None:
            continue
        for wheel in coupling.wheels:
            has = setup.stock.widths.get(wheel.stock_key)
            if has is not None and wide > has + NOISE:
                text = f"the {called(coupling)} is {mm(wide)} wide, the {wheel.words} of the bin {mm(has)}"
                yield Clash("mind", text, coupling.path, wide - has, setup.at(wheel.shaft))


def _seat(wheel: Wheel, found: Seat) -> Seat:
    return in_gear(found, wheel.measure, wheel.size) if wheel.form is GEAR else found


def bores(setup: Setup) -> Iterator[Clash]:
    """Of the parts at hand one goes on the shaft, or something would make it."""
    for wheel in setup.plane.wheels:
        shaft = setup.shaft(wheel.shaft)
        offered = setup.stock.bores.get(wheel.stock_key, ())
        # On a clutch its bore is that of the drum, of which nobody says anything.
        if shaft.diameter is None or not offered or on_drum(setup.design, wheel.shaft):
            continue
        seats = [_seat(wheel, seat(bore, shape, shaft.diameter, shaft.shape)) for bore, shape in offered]
        best = min(seats, key=lambda s: get_args(Answer).index(s.answer))
        if best.answer != "fits":
            at_hand = ", which is at hand" if _has(setup.stock, best, shaft) else ""
            text = f"{wheel.words} on the {setup.plane.named(wheel.shaft)}: {best.words}{at_hand}"
            yield Clash("mind", text, wheel.path, 0.0, setup.at(wheel.shaft))
