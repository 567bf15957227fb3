"""What a plate and the lengths at hand ask of the pairs that a search may choose."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.base import reading
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.base.seen import Reading
from ydrometer.document import design
from ydrometer.document.stages.plane import Loop
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.places import as_problem
from ydrometer.fit.setting_up import set_up
from ydrometer.fit.setup import Setup
from ydrometer.fit.stock import stock_of
from ydrometer.search.layout import PAIRS, Mount


@dataclass(frozen=True, slots=True, kw_only=True)
class Requires:
    """What options must keep to.

    Attributes:
        standing: that they go where the shafts stand now, or can be set in their slots.
        plate: that they go on the plate, on whichever of its holes, as the shafts are mounted.
        lengths_at_hand: that loops have a length at hand.
    """

    standing: bool = reading.flag()
    plate: bool = reading.flag()
    lengths_at_hand: bool = reading.flag()


def required(raw: Mapping[str, Any], bin_parts: Sequence[Mapping[str, Any]]) -> dict[str, Any]:
    """A request with its `requires` written into its layouts: where shafts may stand, and the lengths of pairs.

    Args:
        raw: a request; its design is read only where something is required.
        bin_parts: documents of the bin's parts.

    Raises:
        DocumentError: `requires` cannot be read, there is no plate, or a layout has other stages than those that are
        mounted.
    """
    rest = {key: value for key, value in raw.items() if key != "requires"}
    seen = Reading()
    wanted = reading.finish(reading.read_object(Requires, raw.get("requires", {}), "requires", seen), seen)
    layouts = raw.get("layouts")
    if wanted == Requires() or not isinstance(layouts, list):
        return rest
    setup = set_up(design.read(raw.get("design")).design, stock_of(bin_parts))
    mount = _mount(setup, wanted)
    parts = [
        _layout(layout, number, setup, mount, wanted) if isinstance(layout, Mapping) else layout
        for number, layout in enumerate(layouts)
    ]
    return {**rest, "layouts": parts}


def _mount(setup: Setup, wanted: Requires) -> dict[str, Any] | None:
    """Where the shafts may stand, as a layout says it."""
    if not (wanted.standing or wanted.plate):
        return None
    path = "requires.standing" if wanted.standing else "requires.plate"
    couplings = _in_row(setup)
    if not couplings:
        raise DocumentError([Fault(path, "nothing is mounted", "add a stage, or leave it out")])
    shafts = [couplings[0].driver.shaft, *(coupling.driven.shaft for coupling in couplings)]
    spots = _as_they_stand(setup, shafts) if wanted.standing else _on_the_plate(setup, shafts, path)
    mounting = setup.mounting
    frame = [{"start": list(line.start), "end": list(line.end)} for line in mounting.frame]
    said = {} if mounting.tolerance is None else {"tolerance": mounting.tolerance}
    return {"shafts": spots, **said, "loop_tolerance": mounting.loop_tolerance, "frame": frame, "gap": mounting.gap}


def on_plate(setup: Setup) -> tuple[list[str], Mount]:
    """The kinds of the pairs that are mounted, in the order of power, and where their shafts may stand.

    Raises:
        DocumentError: there is no plate, or nothing on it.
    """
    seen = Reading()
    raw = _mount(setup, Requires(plate=True))
    mount = reading.finish(reading.read_object(Mount, raw, "mount", seen), seen)
    return [coupling.stage.kind for coupling in _in_row(setup)], mount


def _in_row(setup: Setup) -> list[Coupling]:
    """What leads from the source to the wheels; further motors on the first gear are no pairs of a layout."""
    return [coupling for coupling in setup.plane.couplings if not coupling.around_driven]


def _as_they_stand(setup: Setup, shafts: Sequence[str]) -> list[dict[str, Any]]:
    standing = []
    for path in shafts:
        slot = setup.shaft(path).slot
        ends = [setup.at(path)] if slot is None else [slot.start, slot.end]
        standing.append({"at": [list(spot) for spot in ends], "slot": slot is not None})
    return standing


def _on_the_plate(setup: Setup, shafts: Sequence[str], path: str) -> list[dict[str, Any]]:
    try:
        problem = as_problem(setup)
    except ValueError as error:
        raise DocumentError([Fault(path, str(error), "or leave it out")]) from None
    known = {shaft.name: shaft for shaft in problem.shafts}
    placed = []
    for name in shafts:
        assert setup.mounting.plate is not None  # else there is no problem to be solved
        # What may be drilled anywhere stands on holes in a search.
        holes, now = known[name].holes or setup.mounting.plate.holes(), setup.at(name)
        nearest_first = holes if known[name].slot else sorted(holes, key=lambda hole: math.dist(hole, now))
        placed.append({"at": [list(hole) for hole in nearest_first], "slot": known[name].slot})
    return placed


def _layout(
    layout: Mapping[str, Any], number: int, setup: Setup, mount: dict[str, Any] | None, wanted: Requires
) -> dict[str, Any]:
    stages = layout.get("stages")
    if not isinstance(stages, list) or not all(isinstance(stage, Mapping) for stage in stages):
        return dict(layout)
    kinds = [stage.get("kind") for stage in stages if stage.get("kind") in PAIRS]
    if mount is not None and kinds != [coupling.stage.kind for coupling in _in_row(setup)]:
        fault = Fault(
            f"layouts[{number}]",
            "other stages than those that are mounted",
            "choose the design's own stages, or do not ask for what goes on the plate",
        )
        raise DocumentError([fault])
    layouts = [
        {**stage, "lengths": _lengths(setup, loop.part)}
        if wanted.lengths_at_hand and (loop := _loop(stage)) is not None
        else dict(stage)
        for stage in stages
    ]
    return {**layout, "stages": layouts, **({} if mount is None else {"mount": mount})}


def _loop(stage: Mapping[str, Any]) -> Loop | None:
    """What runs around a stage of a layout, as typed."""
    pair = PAIRS.get(str(stage.get("kind")))
    lies = pair.usual.in_plane if pair else None
    return lies if isinstance(lies, Loop) else None


def _lengths(setup: Setup, part: str) -> list[dict[str, float]]:
    return [
        {"length": entry.length, "pitch": entry.pitch} if entry.pitch else {"length": entry.length}
        for entry in setup.stock.loops.get(part, ())
    ]
