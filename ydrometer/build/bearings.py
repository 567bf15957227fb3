"""What carries a shaft: bearings glued into the plate or bolted on; where it slides, on plates of their own."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.build import plates
from ydrometer.build.workshop import BuildShop
from ydrometer.document.mounting import ShaftMount
from ydrometer.document.stages.assembly import CURE, EYES, FUMES, Fitting, Job, kept_tight, made_fast, mm

PLATES, SCREWS = 2, 4
"""Bearings of a shaft, and the screws that hold the plate or the housing of one."""
LAST = "bearing_plates_on"
"""The verb after which a shaft that slides has its bearing plates on."""


def jobs(shop: BuildShop, path: str) -> Iterator[Job]:
    """The jobs of what carries a shaft.

    Args:
        shop: of the design.
        path: of a shaft that no motor and no box brings along.
    """
    said = shop.mount(path)
    if said.slot is not None or said.eccentric is not None:
        yield from _that_slides(shop, path)
    elif said.opening is not None:
        yield _glued(shop, path, f"their {mm(said.opening)} holes", buries=plates.ready(shop))
    else:
        yield _bolted(shop, path)


def _bolted(shop: BuildShop, path: str) -> Job:
    name = shop.shaft(path)
    return Job(
        place=path,
        verb="bearings",
        kind="bearing",
        minutes=15,
        parts=(path,),
        uses=("bearing",),
        fittings=_screws(shop, f"the bearings of the {name}"),
        after=plates.ready(shop),
        title=f"Mount the bearings of the {name}, {made_fast(shop.ways, through=True)}, and turn it in them by hand",
        tools=("hex keys",),
    )


def _screws(shop: BuildShop, holds: str) -> tuple[Fitting, ...]:
    number = PLATES * SCREWS
    return (
        Fitting("screws", f"screws for {holds}", number),
        *kept_tight(shop.ways, f"screws of {holds}", number, through=True),
    )


def _glued(shop: BuildShop, path: str, into: str, buries: tuple[str, ...] = (), after: tuple[str, ...] = ()) -> Job:
    """Bearings glued into their holes, a day before anything turns in them."""
    return Job(
        place=path,
        verb="bearings",
        kind="bearing",
        minutes=20,
        parts=(path,),
        uses=("bearing", "retaining compound"),
        after=after or plates.ready(shop),
        title=f"Glue the bearings of the {shop.shaft(path)} into {into}: compound on the bearing alone",
        why="What is wiped into the hole runs into the bearing, and so does swarf: no drilling after it.",
        wait=CURE,
        tools=("retaining compound",),
        buries=buries,
        cautions=(FUMES,),
    )


def _that_slides(shop: BuildShop, path: str) -> Iterator[Job]:
    """A shaft in a slot, or on eccentrics, has its bearings in plates or bushes that move with it."""
    said, name, carrier = shop.mount(path), shop.shaft(path), _carrier(shop, path)
    make = f"{path}:bearing_plates"
    yield Job(
        place=path,
        verb="bearing_plates",
        kind="make",
        minutes=40,
        parts=(path,),
        fittings=(carrier,),
        title=f"Make the two {_nouns(said.eccentric)} of the {name}{_sizes(said)}",
        why="What carries a shaft that is moved moves with it, and both sides have to be alike.",
        cautions=(EYES,),
        tools=("drill", "vice", "clamp"),
    )
    if said.opening is not None:
        yield _glued(shop, path, f"the holes of its {_nouns(said.eccentric)}", after=(make,))
    moved, held = shop.moved_by(path), f"the {_nouns(said.eccentric)} of the {name}"
    washers = Fitting("washer", f"wide washer for the screws of {held}", PLATES * SCREWS)
    ends = "finger tight" if moved else made_fast(shop.ways, through=True)
    way = "turn freely" if said.eccentric else "slide from end to end of the slot"
    yield Job(
        place=path,
        verb=LAST,
        kind="bearing",
        minutes=20,
        parts=(path,),
        uses=("bearing",),
        fittings=(*_screws(shop, held), *([] if said.eccentric else [washers])),
        after=(*plates.ready(shop), make, f"{path}:bearings"),
        title=f"Put {held} on the plate: they {way}; then {ends}",
        opens=(shop.bolts(path),) if moved else (),
        tools=("hex keys",),
    )


def _nouns(eccentric: float | None) -> str:
    return "eccentric bushes" if eccentric else "bearing plates"


def _sizes(said: ShaftMount) -> str:
    """Of what moves with a shaft, as it is made."""
    if said.eccentric:
        return f"{_across(said)}, the seat of the bearing {mm(said.eccentric)} off their centre"
    hole = f", a {mm(said.opening)} hole for the bearing in each" if said.opening else ""
    return f"{hole}, and holes for their screws; clamp both together to drill them"


def _carrier(shop: BuildShop, path: str) -> Fitting:
    """What has to be made for a shaft that slides."""
    said, of = shop.mount(path), f"for the {shop.shaft(path)}"
    if said.eccentric:
        words = f"eccentric bush{_across(said)}, {mm(said.eccentric)} off centre, {of}"
        return Fitting("eccentric bush", words, PLATES)
    return Fitting("plate", f"bearing plate{_across(said)}, {of}", PLATES)


def _across(said: ShaftMount) -> str:
    """What the plate's opening is to what moves: a bush fills it, a bearing plate has it as its own bore."""
    if not said.opening:
        return ""
    return f", {mm(said.opening)} outside" if said.eccentric else f", bored {mm(said.opening)}"
