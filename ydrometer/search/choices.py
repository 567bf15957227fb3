"""What a layout lets be chosen: heads (source, supply, wheel, count) and, for each stage, pairs or boxes as arrays."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ydrometer.document.stages import KINDS, Stage, stage_efficiency
from ydrometer.evaluation.train import StageFigures
from ydrometer.parts.fitting import SAME_SIZE
from ydrometer.search.layout import BoxChoice, Choice, DriveLayout, Fixed, Mount, PairChoice
from ydrometer.search.mount import Options, PairPlaces, pair_places
from ydrometer.search.request import SUPPLIES, SearchRequest, boxes
from ydrometer.search.room import has_room, outer_radius
from ydrometer.taking import pair_values, whole_stage

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

SAME_RATIO = 1e-12
"""Relative room at a bound of a ratio: fractions of whole teeth that differ, differ by more."""
NO_PART = -1


@dataclass(frozen=True, slots=True)
class Head:
    """Source, supply and wheel by their places among the parts, NO_PART for the design's own; and the count."""

    source: int
    supply: int
    wheel: int
    count: int


@dataclass(frozen=True, slots=True)
class StageSlot:
    """The options of one stage, each array over them.

    Attributes:
        choice: what the request says. parts: places of driver and driven, NO_PART where there is none, (n, 2).
        driver, driven, torque, speed, efficiency, inertia: see `StageFigures`. several_speeds: whether it is the box
        whose ratio changes. places: how they fit between their shafts, where the layout says where those may stand.
    """

    choice: Any
    parts: Ints
    driver: Ints
    driven: Ints
    torque: Floats
    speed: Floats
    efficiency: Floats
    inertia: Floats
    several_speeds: bool = False
    places: PairPlaces | None = None

    def __len__(self) -> int:
        return len(self.parts)

    def figures(self, option: Any) -> StageFigures:
        """Of some options."""
        return StageFigures(
            self.driver[option],
            self.driven[option],
            self.torque[option],
            self.speed[option],
            self.efficiency[option],
            self.inertia[option],
            self.several_speeds,
        )


def heads(request: SearchRequest, layout: DriveLayout) -> list[Head]:
    """Every source with every supply, wheel and count; an engine alone needs no supply."""
    own = request.document.design.drive.branches[0].count
    combined = []
    for source in _chosen(request, layout.sources, ("motor", "engine")):
        electric = _is_electric(request, source)
        supplies = _chosen(request, layout.supplies, SUPPLIES) if electric else [NO_PART]
        for supply in supplies:
            for wheel in _chosen(request, layout.wheels, ("wheel",)):
                combined += [Head(source, supply, wheel, count) for count in (layout.count or (own,))]
    return combined


def _is_electric(request: SearchRequest, source: int) -> bool:
    if source == NO_PART:
        return request.document.design.drive.branches[0].clutch is None
    kind: str = request.body.parts[source].kind
    return kind == "motor"


def _chosen(request: SearchRequest, choice: tuple[str, ...] | None, kinds: Sequence[str]) -> list[int]:
    """Places of the chosen parts; the design's own where there are none of that kind."""
    known = [entry for kind in kinds for entry in request.of_kind(kind)]
    places = [i for i, part in known if choice is None or part.id in choice]
    return sorted(places) or [NO_PART]


def slots(request: SearchRequest, layout: DriveLayout) -> list[StageSlot]:
    """The options of each stage of a layout, in the order of power."""
    pairs = itertools.count()
    return [
        _pairs(request, choice, layout.mount, next(pairs)) if isinstance(choice, PairChoice) else _slot(request, choice)
        for choice in layout.stages
    ]


def _slot(request: SearchRequest, choice: Fixed | BoxChoice) -> StageSlot:
    if isinstance(choice, Fixed):
        return _single(choice, [choice.stage], np.full((1, 2), NO_PART))
    known = [(i, part) for i, part in boxes(request) if choice.parts is None or part.id in choice.parts]
    stages = [part.stage for _, part in known]
    places = np.array([(i, NO_PART) for i, _ in known], np.int64).reshape(-1, 2)
    return _single(choice, stages, places)


def _single(choice: Any, stages: Sequence[Stage], places: Ints) -> StageSlot:
    """Options that are whole stages: teeth are kept as such, so that equal fractions stay equal."""
    figures = [StageFigures.of(stage) for stage in stages]
    return StageSlot(
        choice=choice,
        parts=places,
        driver=np.array([figure.driver for figure in figures], np.int64),
        driven=np.array([figure.driven for figure in figures], np.int64),
        torque=np.array([figure.torque for figure in figures], float),
        speed=np.array([figure.speed for figure in figures], float),
        efficiency=np.array([figure.efficiency for figure in figures], float),
        inertia=np.array([figure.inertia for figure in figures], float),
        several_speeds=any(figure.several_speeds for figure in figures),
    )


@dataclass(frozen=True, slots=True)
class _End:
    """The parts that may stand at one end of a pair: their places in the request, tooth sizes, m, and measures."""

    parts: list[Any]
    place: Ints
    size: Floats
    measure: Floats

    @classmethod
    def of(cls, request: SearchRequest, choice: PairChoice, ids: Choice) -> _End:
        """Of all parts of the pair's kind, or of those that are named."""
        known: list[tuple[int, Any]] = [
            (i, part) for i, part in request.of_kind(choice.part) if ids is None or part.id in ids
        ]
        parts = [part for _, part in known]
        return cls(
            parts,
            np.array([i for i, _ in known], np.int64),
            np.array([part.tooth_size for part in parts], float),
            np.array([part.measure for part in parts], float),
        )

    def outer(self) -> Floats:
        """Radius over all that turns with each, m."""
        return np.array([outer_radius(part) for part in self.parts], float)


def _pairs(request: SearchRequest, choice: PairChoice, mount: Mount | None, number: int) -> StageSlot:
    """The options of one pair: parts of equal tooth size, within the bounds of the ratio, for which there is room.

    Args:
        request: with the parts.
        choice: what the layout says of the pair.
        mount: where the shafts may stand, None where the layout does not say.
        number: which one of the layout's pairs it is, from 0.
    """
    driver, driven = _End.of(request, choice, choice.driver), _End.of(request, choice, choice.driven)
    a, b = _matching(driver, driven, choice.ratio)
    wanted = driver.size[a], driver.measure[a], driven.measure[b]
    places = None
    if mount is not None and len(a):
        places = pair_places(mount, number, choice, Options(*wanted, driver.outer()[a], driven.outer()[b]))
    room = has_room(choice, *wanted) if places is None else places.alone
    kept = None if places is None else places.of(room)
    return _slot_of(choice, driver, driven, (a[room], b[room]), kept)


def _matching(driver: _End, driven: _End, bounds: tuple[float, float]) -> tuple[Ints, Ints]:
    """Which drivers go with which driven wheels: equal tooth sizes, and a ratio within bounds."""
    same = np.abs(driver.size[:, None] - driven.size[None, :]) <= SAME_SIZE * driver.size[:, None]
    ratio = driven.measure[None, :] / driver.measure[:, None]
    within = (ratio >= bounds[0] * (1.0 - SAME_RATIO)) & (ratio <= bounds[1] * (1.0 + SAME_RATIO))
    first, second = np.nonzero(same & within)
    return first, second


def _slot_of(
    choice: PairChoice, driver: _End, driven: _End, chosen: tuple[Ints, Ints], places: PairPlaces | None
) -> StageSlot:
    """Options of a pair; teeth are kept as such, so that equal fractions stay equal."""
    first, second = driver.measure[chosen[0]], driven.measure[chosen[1]]
    ones, usual = np.ones(len(first), np.int64), choice.usual
    toothed = choice.form.toothed
    torque = np.ones(len(first)) if toothed else second / first
    return StageSlot(
        choice=choice,
        parts=np.stack([driver.place[chosen[0]], driven.place[chosen[1]]], axis=1),
        driver=first.astype(np.int64) if toothed else ones,
        driven=second.astype(np.int64) if toothed else ones,
        torque=torque,
        speed=torque * (usual.speed_ratio / usual.ratio),
        efficiency=np.full(len(first), stage_efficiency(usual)),
        inertia=np.zeros(len(first)),
        places=places,
    )


def trunk_from(layout: DriveLayout) -> int:
    """The stage from which on the trunk begins: the first box of several speeds, else behind the last."""
    for place, choice in enumerate(layout.stages):
        if isinstance(choice, Fixed) and choice.stage.several_speeds:
            return place
    return len(layout.stages)


def stage_json(request: SearchRequest, slot: StageSlot, option: int, layout: DriveLayout, place: int) -> dict[str, Any]:
    """The chosen stage as a design file has it."""
    choice = slot.choice
    first, second = (int(p) for p in slot.parts[option])
    raw_parts: Any = request.raw["parts"]
    if isinstance(choice, Fixed):
        raw: dict[str, Any] = request.raw["layouts"][request.body.layouts.index(layout)]["stages"][place]["stage"]
        return raw
    if isinstance(choice, BoxChoice):
        return whole_stage(raw_parts[first])
    chosen = {"driver": raw_parts[first], "driven": raw_parts[second]}
    return {"kind": choice.kind, **pair_values(KINDS[choice.kind], chosen)}


def used(request: SearchRequest, layouts: Sequence[Sequence[StageSlot]]) -> Iterator[int]:
    """Places of all parts that some layout can choose.

    Args:
        request: with the layouts.
        layouts: the options of the stages of each.
    """
    places: set[int] = set()
    for layout, options in zip(request.body.layouts, layouts, strict=True):
        for head in heads(request, layout):
            places |= {head.source, head.supply, head.wheel}
        for slot in options:
            places |= set(slot.parts.ravel().tolist())
    yield from sorted(places - {NO_PART})


def total(lengths: Sequence[int]) -> int:
    """How many combinations options of these numbers make."""
    return math.prod(lengths)
