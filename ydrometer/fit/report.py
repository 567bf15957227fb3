"""What a design's own sizes already say about how its stages go together; nothing is guessed."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any

from ydrometer.design import Document, stages_with_paths
from ydrometer.fit import chains, hands, loops, pairs
from ydrometer.stages import Belt, Chain, Gear, VBelt

FORMAT = "ydrometer-fit"
USUAL_PLAY = 0.04
"""Play at the pitch circle as a share of the module, to begin with; common practice for spur gears."""
USUAL_SAG = 0.02
"""Depth at mid-span as a share of the span, of a chain whose slack run hangs level (makers' manuals)."""


@dataclass(slots=True)
class Facts:
    """Of one stage: sizes by name with their unit, and what to mind."""

    sizes: dict[str, tuple[float, str]] = field(default_factory=dict)
    messages: list[str] = field(default_factory=list)


def report(document: Document) -> dict[str, Any]:
    """The facts of every stage that has any.

    Args:
        document: a design as read.
    """
    stages = []
    for path, stage in stages_with_paths(document.design):
        tell = TELL.get(stage.kind)
        if tell is None:
            continue
        facts = tell(stage)
        sizes = {name: {"value": value, "unit": unit} for name, (value, unit) in facts.sizes.items()}
        stages.append({"path": path, "kind": stage.kind, "sizes": sizes, "messages": facts.messages})
    return {"format": FORMAT, "version": 1, "stages": stages}


def _gear(stage: Gear) -> Facts:
    module = stage.tooth_size
    if module is None:
        return Facts(messages=["no tooth size given: give module or diametral_pitch"])
    teeth = [stage.driver_teeth, *stage.idlers, stage.driven_teeth]
    play = USUAL_PLAY * module
    facts = Facts()
    for place, (one, other) in enumerate(pairwise(teeth)):
        ring = stage.internal and place == len(teeth) - 2
        name = "centre_distance" if len(teeth) == 2 else f"centre_distance_{place + 1}"
        free = pairs.centre_distance(module, one, other, stage.pressure_angle, internal=ring)
        loose = pairs.centre_distance(module, one, other, stage.pressure_angle, internal=ring, play=play)
        facts.sizes |= {name: (free, "m"), f"{name}_with_play": (loose, "m")}
    facts.sizes["driver_outside_diameter"] = pairs.outside_diameter(module, stage.driver_teeth), "m"
    if not stage.internal:
        facts.sizes["driven_outside_diameter"] = pairs.outside_diameter(module, stage.driven_teeth), "m"
    rim = 0.5 * module * stage.driven_teeth
    facts.sizes["play"] = play, "m"
    facts.sizes["play_at_100_mm"] = pairs.rocking(play, rim, 0.1), "m"
    facts.sizes["paper_for_play"] = hands.paper_for(play, stage.pressure_angle), "m"
    return facts


def _belt(stage: Belt) -> Facts:
    if stage.pitch is None:
        return Facts(messages=["no pitch given"])
    if stage.belt_teeth is None:
        return Facts(messages=["no belt length given: give belt_teeth"])
    return _loop(stage, stage.pitch, stage.belt_teeth)


def _loop(stage: Any, pitch: float, pieces: int) -> Facts:
    """Of a belt or chain of so many pieces, each as long as the pitch."""
    radii = (loops.pitch_radius(pitch, stage.driver_teeth), loops.pitch_radius(pitch, stage.driven_teeth))
    length = pieces * pitch
    distance = loops.centre_distance(length, *radii)
    facts = Facts({"length": (length, "m")})
    if distance is None:
        facts.messages.append(f"{length * 1e3:.4g} mm is too short: the wheels would touch")
        return facts
    wraps = loops.wraps(*radii, distance)
    facts.sizes |= {
        "centre_distance": (distance, "m"),
        "driver_wrap": (wraps[0], "rad"),
        "driven_wrap": (wraps[1], "rad"),
    }
    facts.sizes["span"] = distance * math.cos(loops.lean(*radii, distance)), "m"
    for end, teeth, wrap in zip(("driver", "driven"), (stage.driver_teeth, stage.driven_teeth), wraps, strict=True):
        held = loops.in_mesh(teeth, wrap)
        facts.sizes[f"{end}_teeth_in_mesh"] = float(held), ""
        if stage.kind == "belt" and held < loops.LEAST_IN_MESH:
            facts.messages.append(
                f"{held} teeth of the {end} hold the belt: fewer than {loops.LEAST_IN_MESH} carry less"
            )
    return facts


def _chain(stage: Chain) -> Facts:
    if stage.pitch is None:
        return Facts(messages=["no pitch given"])
    teeth = (stage.driver_teeth, stage.driven_teeth)
    facts = Facts()
    if stage.links is None:
        facts.messages.append("no chain length given: give links")
    else:
        facts = _loop(stage, stage.pitch, stage.links)
        if stage.links % 2:
            facts.messages.append(f"{stage.links} links need an offset link, which carries less: take an even number")
        if "span" in facts.sizes:
            facts.sizes["sag"] = USUAL_SAG * facts.sizes["span"][0], "m"
    for end, z in zip(("driver", "driven"), teeth, strict=True):
        facts.sizes[f"{end}_pitch_diameter"] = chains.pitch_diameter(stage.pitch, z), "m"
    facts.sizes["ripple"] = chains.ripple(min(teeth)), ""
    return facts


def _v_belt(stage: VBelt) -> Facts:
    """Where the belt runs is given; how long it is nobody has said."""
    return Facts({"driver_pitch_diameter": (stage.driver_pitch_diameter, "m"),
                  "driven_pitch_diameter": (stage.driven_pitch_diameter, "m")})  # fmt: skip


TELL: dict[str, Callable[[Any], Facts]] = {"gear": _gear, "belt": _belt, "chain": _chain, "v_belt": _v_belt}
"""What can be told of each kind of stage."""
