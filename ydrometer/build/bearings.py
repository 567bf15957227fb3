"""What carries a shaft: bearings glued into the plate or bolted on; where it slides, on plates of their own."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.build import plates
from ydrometer.build.workshop import BuildShop
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
    said, name = shop.mount(path), shop.shaft(path)
    carrier = _carrier(shop, path)
    hole = f", a {mm(said.opening)} hole for its bearing in each" if said.opening else ""
    holds = "" if said.eccentric else ", and holes for their screws"
    make = f"{path}:bearing_plates"
    yield Job(
        place=path,
        verb="bearing_plates",
        kind="make",
        minutes=40,
        parts=(path,),
        fittings=(carrier,),
        title=f"Make the two {_nouns(said.eccentric)} of the {name}{hole}{holds}; clamp both together to drill them",
        why="What carries a shaft that is moved moves with it; drilled together both are alike.",
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


def _noun(eccentric: float | None) -> str:
    return "eccentric bush" if eccentric else "bearing plate"


def _nouns(eccentric: float | None) -> str:
    return "eccentric bushes" if eccentric else "bearing plates"


def _carrier(shop: BuildShop, path: str) -> Fitting:
    """What has to be made for a shaft that slides."""
    said = shop.mount(path)
    off = f", {mm(said.eccentric)} off centre" if said.eccentric else ""
    hole = f", bored {mm(said.opening)}" if said.opening else ""
    kind = "eccentric bush" if said.eccentric else "plate"
    return Fitting(kind, f"{_noun(said.eccentric)}{off}{hole}, for the {shop.shaft(path)}", PLATES)
