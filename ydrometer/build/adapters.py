"""Adapters between two flanges: made, drilled, dowelled, screwed on, joined with the coupling free."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.build import plates
from ydrometer.build.workshop import BuildShop
from ydrometer.document.flanges import Bolts, FlangeAdapter
from ydrometer.document.stages.assembly import EYES, Fitting, Job, kept_tight, known_sizes, made_fast, mm, screw_words


def jobs(shop: BuildShop) -> Iterator[Job]:
    """The jobs of every adapter of the `fit` section.

    Args:
        shop: of the design.
    """
    for number, adapter in enumerate(shop.fit.adapters):
        yield from _adapter(shop, f"fit.adapters[{number}]", adapter)


def name_of(adapter: FlangeAdapter) -> str:
    """An adapter as it stands in a sentence."""
    return f"adapter {adapter.name}".strip()


def _adapter(shop: BuildShop, path: str, adapter: FlangeAdapter) -> Iterator[Job]:
    name, several = name_of(adapter), adapter.plates > 1
    layers = "both plates" if several else "the plate"
    yield plates.printed(path, f"the {name}", (path,))
    yield Job(
        place=path,
        verb="make",
        kind="make",
        minutes=30 * adapter.plates,
        parts=(path,),
        fittings=(_blank(adapter),),
        after=(f"{path}:template",),
        title=f"Make {layers} of the {name}: {mm(adapter.outside)} across, its bore as the template has it",
        why="What centres a flange is the bore, not the bolts.",
        tools=("saw", "file", "vice"),
        cautions=(EYES,),
    )
    clamped = "clamp both plates together and drill" if several else "drill"
    yield Job(
        place=path,
        verb="drill",
        kind="plate",
        minutes=plates.drilling_time(_holes(adapter)),
        parts=(path,),
        after=(f"{path}:make",),
        title=f"On the {name}, {clamped} every hole undersize first, then to size: {_sizes(adapter)}; deburr",
        tools=("drill", "vice", "clamp", "countersink"),
        cautions=(EYES,),
    )
    if adapter.dowels is not None:
        yield _dowelled(path, name, adapter.dowels)
    yield _screwed_on(shop, path, adapter)
    yield _joined(shop, path, adapter)


def _blank(adapter: FlangeAdapter) -> Fitting:
    words = f"adapter plate {adapter.name}".strip()
    return Fitting("plate", f"{words}, {mm(adapter.outside)} across", adapter.plates, {"diameter": adapter.outside})


def _dowelled(path: str, name: str, dowels: Bolts) -> Job:
    return Job(
        place=path,
        verb="dowel",
        kind="plate",
        minutes=10 * dowels.count,
        parts=(path,),
        after=(f"{path}:drill",),
        fittings=(Fitting("dowel", f"dowel, {mm(dowels.hole)}", dowels.count, {"diameter": dowels.hole}),),
        title=f"Ream the {dowels.count} dowel holes of the {name} to {mm(dowels.hole)} through both plates, dowels in",
        why="Dowels hold the plates in line, bolts only hold them together.",
        tools=("reamer", "hammer"),
        cautions=(EYES,),
    )


def _screwed_on(shop: BuildShop, path: str, adapter: FlangeAdapter) -> Job:
    sides = " and on the ".join(side.name or f"side {number}" for number, side in enumerate(adapter.sides, 1))
    screws = [fitting for side in adapter.sides for fitting in _screws(shop, side.bolts, through=False)]
    plate = "a plate each" if adapter.plates > 1 else "its plate"
    return Job(
        place=path,
        verb="mount",
        kind="box",
        minutes=20,
        parts=(path,),
        after=(f"{path}:dowel", f"{path}:drill", *(f"{source}:mount" for source in shop.line.sources)),
        fittings=tuple(screws),
        title=f"Screw the {name_of(adapter)} on the {sides}, {plate}: centred first, then {made_fast(shop.ways)}",
        why="Bolts pulled tight before the centring is in pull it askew.",
        tools=("hex keys",),
    )


def _joined(shop: BuildShop, path: str, adapter: FlangeAdapter) -> Job:
    joint = () if adapter.joint is None else _screws(shop, adapter.joint, through=True)
    coupling = [f"{mm(adapter.coupling)} long" if adapter.coupling else ""]
    coupling += [f"{mm(adapter.coupling_diameter)} across" if adapter.coupling_diameter else ""]
    sizes = known_sizes(length=adapter.coupling, outside_diameter=adapter.coupling_diameter)
    return Job(
        place=path,
        verb="join",
        kind="box",
        minutes=20,
        parts=(path,),
        after=(f"{path}:mount",),
        fittings=(
            Fitting("coupling", ", ".join(filter(None, ("coupling", *coupling))), 1, sizes),
            Fitting("key", f"key for the coupling of the {name_of(adapter)}", len(adapter.sides)),
            *joint,
        ),
        title=f"Grease the keys, put the coupling of the {name_of(adapter)} on both shafts and bring them together: it "
        f"stays free by {mm(adapter.shaft_gap)}; then the joint, {made_fast(shop.ways, through=True)}",
        why="A coupling that is pushed tight loads both bearings.",
        tools=("hex keys", "grease"),
        cautions=(shop.fingers,),
    )


def _screws(shop: BuildShop, bolts: Bolts, *, through: bool) -> tuple[Fitting, ...]:
    sizes = known_sizes(hole=bolts.hole, length=bolts.length)
    return (
        Fitting("screws", screw_words(bolts.hole, bolts.length), bolts.count, sizes),
        *kept_tight(shop.ways, f"screws in {mm(bolts.hole)} holes", bolts.count, hole=bolts.hole, through=through),
    )


def _holes(adapter: FlangeAdapter) -> int:
    """How many are drilled, in all plates."""
    circles = [*(side.bolts for side in adapter.sides), adapter.dowels, adapter.joint]
    common = adapter.plates if adapter.dowels or adapter.joint else 1
    return sum(circle.count for circle in circles if circle is not None) * common


def _sizes(adapter: FlangeAdapter) -> str:
    circles = [*(side.bolts for side in adapter.sides), adapter.joint]
    return ", ".join(dict.fromkeys(mm(circle.hole) for circle in circles if circle is not None))
