"""What a plate and the lengths at hand ask of the pairs that a search may choose."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer import design, reading
from ydrometer.errors import DocumentError, Fault
from ydrometer.fit.at_hand import LOOP_PARTS, lengths_for
from ydrometer.fit.line import Tie
from ydrometer.fit.setup import Setup
from ydrometer.mounted import at_hand, setup_of
from ydrometer.reading import Reading


@dataclass(frozen=True, slots=True, kw_only=True)
class Requires:
    """That pairs go where the shafts of the plate stand now, or can be set; that loops have a length at hand."""

    plate: bool = reading.flag()
    lengths_at_hand: bool = reading.flag()


def required(raw: Mapping[str, Any], bin_parts: Sequence[Mapping[str, Any]]) -> dict[str, Any]:
    """A request with its `requires` written into its layouts' pairs, as distances and lengths.

    Args:
        raw: a request; its design is read only where something is required.
        bin_parts: documents of the bin's parts.

    Raises:
        DocumentError: `requires` cannot be read, or a layout has other stages than those that are mounted.
    """
    rest = {key: value for key, value in raw.items() if key != "requires"}
    seen = Reading()
    wanted = reading.finish(reading.read_object(Requires, raw.get("requires", {}), "requires", seen), seen)
    layouts = raw.get("layouts")
    if not (wanted.plate or wanted.lengths_at_hand) or not isinstance(layouts, list):
        return rest
    setup = setup_of(design.read(raw.get("design")), at_hand(bin_parts))
    ties = _mounted(setup) if wanted.plate else []
    made = [
        _layout(layout, number, setup, ties, wanted) if isinstance(layout, Mapping) else layout
        for number, layout in enumerate(layouts)
    ]
    return {**rest, "layouts": made}


def _mounted(setup: Setup) -> list[Tie]:
    if not setup.plane.ties:
        raise DocumentError([Fault("requires.plate", "nothing is mounted", "add a stage, or leave it out")])
    return setup.plane.ties


def _layout(
    layout: Mapping[str, Any], number: int, setup: Setup, ties: Sequence[Tie], wanted: Requires
) -> dict[str, Any]:
    stages = layout.get("stages")
    if not isinstance(stages, list) or not all(isinstance(stage, Mapping) for stage in stages):
        return dict(layout)
    paired = [stage for stage in stages if stage.get("kind") in ("gear", *LOOP_PARTS)]
    if wanted.plate and [stage["kind"] for stage in paired] != [tie.kind for tie in ties]:
        fault = Fault(f"layouts[{number}]", "other stages than those that are mounted",
                      "choose the design's own stages, or do not ask for what goes on the plate")  # fmt: skip
        raise DocumentError([fault])
    places = iter(range(len(paired)))
    made = []
    for stage in stages:
        more: dict[str, Any] = {}
        if stage in paired:
            place = next(places)
            if wanted.plate:
                more["distance"] = list(_reach(setup, ties[place]))
            if wanted.lengths_at_hand and stage["kind"] in LOOP_PARTS:
                more["lengths"] = [
                    {"length": length} if pitch is None else {"length": length, "pitch": pitch}
                    for length, pitch in lengths_for(setup.hand, stage["kind"])
                ]
        made.append({**stage, **more})
    return {**layout, "stages": made}


def _reach(setup: Setup, tie: Tie) -> tuple[float, float]:
    """The distances without play that suit where the shafts stand or can be set, m."""
    low, high = setup.reach(tie)
    if tie.is_loop:
        return low - setup.mounting.loop_tolerance, high + setup.mounting.loop_tolerance
    return low - setup.mounting.tolerance, high
