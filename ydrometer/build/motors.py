"""Motors and engines on their mounts: cables before they are hidden, all screws started before any is tight."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ydrometer.build import plates
from ydrometer.build.safe import SPRINGS
from ydrometer.build.workshop import BuildShop
from ydrometer.document.stages.assembly import Fitting, Job, drop_of_locker, kept_tight, made_fast, mm
from ydrometer.document.walk import branch_of
from ydrometer.fit.seating import HOLDS

SCREWS = 4
"""Of a motor of which nobody says how many it has."""
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
        if shop.on_drum(path):
            yield _clutch(shop, path)
        mounted.append(path)


def _plugged(shop: BuildShop, path: str) -> Job:
    motor = shop.named(path)
    return Job(
        place=path,
        verb="plug",
        kind="motor",
        minutes=10,
        parts=(path,),
        uses=(shop.source(path).kind,),
        tools=("cable ties",),
        title=f"Plug in and lay the cable of {motor} now, its wires to the free side",
        after=plates.ready(shop),
        why="Once its neighbour is in, no hand gets there.",
    )


def _mounted(shop: BuildShop, path: str, hides: tuple[str, ...]) -> Job:
    moved, each = shop.moved_by(path), shop.line.sources[path]
    name = shop.named(path)
    ends = "leave them loose: it is moved once more" if moved else f"then tighten them, {made_fast(shop.ways)}"
    over = "" if moved else shop.covered(path)
    ends += f"{drop_of_locker(shop.ways)}: the {over} covers them" if over else ""
    return Job(
        place=path,
        verb="mount",
        kind="motor",
        minutes=15 * each,
        parts=(path,),
        uses=(shop.source(path).kind, "screws"),
        fittings=_under_heads(shop, path),
        tools=("hex keys",),
        title=f"Mount {name}: {_screws(shop, path)}start every screw before any is tight, {ends}",
        why=_depth(shop, path),
        after=(*plates.ready(shop), f"{path}:plug"),
        buries=hides,
        opens=(shop.bolts(path),) if moved else (),
    )


def _clutch(shop: BuildShop, path: str) -> Job:
    return Job(
        place=path,
        verb="clutch",
        kind="motor",
        minutes=20,
        parts=(path, f"{path.removesuffix('.source')}.clutch"),
        uses=("clutch", "key"),
        title=f"Put the clutch on the shaft of {shop.named(path)}: its shoes with their key, the drum free on its "
        "bearing; the drum turns by hand while the shaft stands still",
        why="A drum that drags creeps at idle.",
        cautions=(SPRINGS,),
        after=(f"{path}:mount",),
        tools=("hex keys", "feeler gauge"),
    )


def _under_heads(shop: BuildShop, path: str) -> tuple[Fitting, ...]:
    """Washers under the heads of a motor's screws where they stand in a slot, and what keeps them tight; the screws
    themselves where nobody says which they are.
    """
    said, each = shop.mount(path), shop.line.sources[path]
    if said.bolts is None:
        return (Fitting("screws", f"screws for the mount of {shop.named(path)}", SCREWS * each),)
    screws, number = f"{mm(said.bolts.hole)} holes", said.bolts.count * each
    hole = said.bolts.hole
    washers = (Fitting("washer", f"washer for {screws}", number, {"hole": hole}),) if said.slot is not None else ()
    return (*washers, *kept_tight(shop.ways, f"screws in {screws}", number, hole=hole))


def _screws(shop: BuildShop, path: str) -> str:
    bolts = shop.mount(path).bolts
    if bolts is None:
        return ""
    length = shop.screws(path)
    long = f" of {mm(length)}" if length else ""
    return f"{bolts.count} screws{long}, "


def _depth(shop: BuildShop, path: str) -> str:
    """How far the screws go in, as far as that is known."""
    bolts, plate, length = shop.mount(path).bolts, shop.fit.plate, shop.screws(path)
    if bolts is None or length is None or plate is None or plate.thickness is None:
        meets = "cracks its case" if shop.on_drum(path) else "goes into the winding"
        return f"A screw that is too long {meets}: try each in its hole first."
    into = f"They go {mm(length - plate.thickness)} into it; at least {mm(HOLDS * bolts.hole)}"
    if bolts.depth is None:
        return f"{into} is right. Measure its threads first: a screw that is too long goes into the winding."
    return f"{into} and at most {mm(bolts.depth)} is right."


def _neighbours(shop: BuildShop, first: str, second: str) -> bool:
    """Whether one motor hides the plug of another: of one branch, or nearer than its own radius and 20 mm."""
    if branch_of(first) == branch_of(second):
        return True
    at = [(plate.stands[path].at, plate) for plate in shop.plates for path in (first, second) if path in plate.stands]
    body = max((shop.mount(path).body or 0.0) for path in (first, second))
    return len(at) == 2 and bool(body) and math.dist(at[0][0], at[1][0]) <= body + HIDES
