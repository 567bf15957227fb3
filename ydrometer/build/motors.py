"""Motors and engines on their mounts: cables before they are hidden, all screws started before any is tight."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ydrometer.build import plates
from ydrometer.build.workshop import BuildShop
from ydrometer.document.sources import Engine
from ydrometer.document.stages.assembly import Job, made_fast, mm
from ydrometer.document.walk import branch_of
from ydrometer.fit.seating import HOLDS

HIDES = 0.02
"""m beside its body within which a neighbour leaves no room for fingers."""


def jobs(shop: BuildShop) -> Iterator[Job]:
    """The jobs of every motor and engine.

    Args:
        shop: of the design.
    """
    mounted: list[str] = []
    for path in shop.line.sources:
        hidden = [other for other in mounted if _neighbours(shop, other, path)]
        if any(_neighbours(shop, path, other) for other in shop.line.sources if other != path):
            yield _plugged(shop, path)
        yield _mounted(shop, path, tuple(f"{other}:plug" for other in hidden))
        if isinstance(shop.design.drive.branches[branch_of(path)].source, Engine):
            yield _clutch(path)
        mounted.append(path)


def _plugged(shop: BuildShop, path: str) -> Job:
    motor = shop.named(path)
    return Job(
        place=path,
        verb="plug",
        kind="motor",
        minutes=10,
        parts=(path,),
        tools=("cable ties",),
        title=f"Plug in and lay the cable of {motor} now, its wires to the free side",
        after=plates.ready(shop),
        why="Once its neighbour is in, no hand gets there.",
    )


def _mounted(shop: BuildShop, path: str, hides: tuple[str, ...]) -> Job:
    moved, each = shop.moved_by(path), shop.line.sources[path]
    name = shop.named(path)
    ends = "leave them loose: it is moved once more" if moved else f"then tighten them, {made_fast(shop.ways)}"
    return Job(
        place=path,
        verb="mount",
        kind="motor",
        minutes=15 * each,
        parts=(path,),
        tools=("hex keys",),
        title=f"Mount {name}: {_screws(shop, path)}start every screw before any is tight, {ends}",
        why=_depth(shop, path),
        after=(*plates.ready(shop), f"{path}:plug"),
        buries=hides,
        opens=(shop.bolts(path),) if moved else (),
    )


def _clutch(path: str) -> Job:
    return Job(
        place=path,
        verb="clutch",
        kind="motor",
        minutes=20,
        parts=(path, f"{path.removesuffix('.source')}.clutch"),
        title="Put the clutch on the engine's shaft with its key: the drum turns free of the shoes by hand",
        why="A drum that drags creeps at idle.",
        after=(f"{path}:mount",),
        tools=("hex keys", "feeler gauge"),
    )


def _screws(shop: BuildShop, path: str) -> str:
    bolts = shop.mount(path).bolts
    if bolts is None:
        return ""
    long = f" of {mm(bolts.length)}" if bolts.length else ""
    return f"{bolts.count} screws{long}, "


def _depth(shop: BuildShop, path: str) -> str:
    """How far the screws go in, as far as that is known."""
    bolts, plate = shop.mount(path).bolts, shop.fit.plate
    if bolts is None or bolts.length is None or plate is None or plate.thickness is None:
        return "A screw that is too long goes into the winding: try each in its hole first."
    most = f" and at most {mm(bolts.depth)}" if bolts.depth else ""
    into = f"They go {mm(bolts.length - plate.thickness)} into it; at least {mm(HOLDS * bolts.hole)}"
    return f"{into}{most} is right."


def _neighbours(shop: BuildShop, first: str, second: str) -> bool:
    """Whether one motor hides the plug of another: of one branch, or nearer than its own radius and 20 mm."""
    if branch_of(first) == branch_of(second):
        return True
    at = [(plate.stands[path].at, plate) for plate in shop.plates for path in (first, second) if path in plate.stands]
    body = max((shop.mount(path).body or 0.0) for path in (first, second))
    return len(at) == 2 and bool(body) and math.dist(at[0][0], at[1][0]) <= body + HIDES
