"""What has to be done to parts before they fit: bored out, turned down, cut, printed, drilled."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ydrometer.base.tables.keys import key_for
from ydrometer.base.tables.strengths import MATERIALS
from ydrometer.build.bin import Owned
from ydrometer.build.matching import is_longer, screw_length, seated
from ydrometer.build.needs import Need
from ydrometer.build.workshop import BuildShop, plate_path
from ydrometer.document.sources import Motor
from ydrometer.document.stages.assembly import EYES, FUMES, Job, mm
from ydrometer.document.walk import branch_of
from ydrometer.fit.bores import SAME
from ydrometer.fit.setup import Setup
from ydrometer.fit.touching import shafts_beside
from ydrometer.parts.kinds import SundryPart

DRILL_STEP = 2e-3
"""m by which each drill is wider than the one before: more grabs in thin hubs (workshop practice)."""
REAMED = 2e-4
"""m that a reamer takes off."""
SOFTENING = "Printed parts soften near a hot motor: {} from about {:.0f} degC."
PRINTING = 6.0 * 3600.0
"""s that a motor's mount prints by itself (workshop practice); nobody has to stand by."""
MINUTES = {"print": 15.0, "cut": 15.0, "shorten": 10.0, "bore": 30.0, "flat": 10.0, "keyway": 30.0}
"""Of work, by the verb of a making."""
TOOLS = {
    "print": ("printer for parts",),
    "cut": ("saw", "file", "vice"),
    "shorten": ("saw", "file", "vice"),
    "bore": ("drill press", "reamer", "vice"),
    "flat": ("file", "vice"),
    "keyway": ("broach", "press"),
}
ROUND = 1e-4
HALF = 5e-4
"""m between the drills of a usual set."""


@dataclass(frozen=True, slots=True)
class Making:
    """Something to be done to a part.

    Attributes:
        what: "bore out", "turn the flange down" … start, end: sizes before and after, m; None where there is none.
        words: the whole of it, with the sizes on the way. caution: for the hands. verb: of its build step.
        wait: s that a machine goes on by itself.
    """

    what: str
    start: float | None
    end: float | None
    words: str
    caution: str
    verb: str
    wait: float = 0.0


def drills(start: float, end: float) -> list[float]:
    """Sizes on the way from one bore to a wider one, m: drills in steps, then a reamer.

    Args:
        start: bore as it is, m.
        end: bore that is wanted, m, wider.

    Returns:
        Drills from the smallest up, the last one `REAMED` below the end, then the end itself for the reamer.
    """
    last = end - REAMED
    steps = max(0, round((last - start) / DRILL_STEP + 0.49) - 1)
    between = [round((start + (k + 1) * (last - start) / (steps + 1)) / HALF) * HALF for k in range(steps)]
    return [*(size for size in between if start < size < last), *([last] if last > start else []), end]


def of_part(shop: BuildShop, need: Need, owned: Owned | None) -> list[Making]:
    """What has to be done to the part that is matched with a need, or to what is made for it.

    Args:
        shop: of the design.
        need: of it.
        owned: the part; None where none is matched.
    """
    if owned is None:
        return list(_made(shop, need, owned))
    own = [*_bored(need, owned), *_keyed(need, owned), *_turned(shop, need, owned), *_parted(need, owned)]
    return [*own, *_made(shop, need, owned)]


def _bored(need: Need, owned: Owned) -> Iterator[Making]:
    seat = seated(need, owned.part)
    if seat is None or seat.answer != "bore out":
        return
    bore: float = getattr(owned.part, "bore")  # noqa: B009  # only what is on a shaft is seated
    if seat.size <= bore + ROUND / 2:
        yield Making("file a flat", bore, seat.size, seat.words, EYES, "flat")
        return
    *on_the_way, reamer = drills(bore, seat.size)
    sizes = ", ".join(f"{1e3 * size:g}" for size in on_the_way)
    words = f"Bore it out from {mm(bore)} to {mm(reamer)}: drills of {sizes} mm, then a reamer of {mm(reamer)}"
    yield Making("bore out", bore, reamer, words, EYES, "bore")


def _keyed(need: Need, owned: Owned) -> Iterator[Making]:
    """A hub without a way for the key of its shaft."""
    seat = seated(need, owned.part)
    key = key_for(need.shaft[0]) if need.shaft else None
    if seat is None or key is None or not seat.keyway or seat.answer not in ("fits", "bore out"):
        return
    words = (
        f"Broach a keyway into its hub, {mm(key.width)} wide and {mm(key.in_hub)} deep; where nobody can, a hub that "
        "clamps or a taper bush carries the torque instead"
    )
    yield Making("cut a keyway", None, key.width, words, EYES, "keyway")


def _parted(need: Need, owned: Owned) -> Iterator[Making]:
    """A chain that is longer than it has to be; its step counts the links."""
    if is_longer(need, owned.part):
        has: float | None = getattr(owned.part, "around", None)
        yield Making("part", has, need.sizes["around"], "Count its links and part it", EYES, "")


def _turned(shop: BuildShop, need: Need, owned: Owned) -> Iterator[Making]:
    """A flange that touches the shaft beside it, turned down until it clears."""
    rim: float | None = getattr(owned.part, "rim", None)
    if rim is None:
        return
    room = min((_room(plate, name) for plate in shop.plates for name in need.where), default=rim)
    if room < rim - ROUND:
        words = f"Turn its flange down from {mm(rim)} to {mm(room)}, or it touches the shaft beside it"
        yield Making("turn the flange down", rim, room, words, EYES, "turn_down")


def _room(plate: Setup, name: str) -> float:
    """The widest rim that a wheel may have beside other shafts, m."""
    room = float("inf")
    for pair in shafts_beside(plate):
        if pair.wheel.name == name:
            apart = math.dist(plate.at(pair.wheel.shaft), plate.at(pair.shaft))
            widest = 2.0 * (pair.wheel.outer_radius - pair.short(apart))
            # A flange is turned down to what the belt needs, no further.
            room = min(room, widest) if widest > 2.0 * pair.wheel.pitch_radius else room
    return room


def _made(shop: BuildShop, need: Need, owned: Owned | None) -> Iterator[Making]:
    if need.kind == "shaft":
        length = shop.mount(need.where[0]).length
        if length:
            words = f"Cut the shaft to {mm(length)} and chamfer both ends"
            yield Making("cut to length", None, length, words, EYES, "cut")
    elif need.kind == "screws":
        yield from _shortened(need, owned)
    elif need.kind == "plate" and need.where[0] in {plate_path(plate) for plate in shop.plates}:
        yield Making("drill by the template", None, None, "Drill it by the template that Fit prints", EYES, "")
    elif need.kind in ("plate", "eccentric bush"):
        yield Making("make", None, None, "Make it: its step in Build says how", EYES, "")
    elif need.kind == "motor":
        yield from _printed(shop, need)


def _shortened(need: Need, owned: Owned | None) -> Iterator[Making]:
    """Screws that go too deep behind the plate; those of the bin may be short enough."""
    most, uncut = need.sizes.get("length"), need.sizes.get("uncut")
    has = screw_length(owned.part.size) if owned and isinstance(owned.part, SundryPart) else None
    long = has if has is not None else uncut
    if most is not None and long is not None and long > most + SAME:
        words = f"Cut the screws from {mm(long)} to {mm(most)}, or they go too deep; file the thread's end"
        yield Making("cut to length", long, most, words, EYES, "shorten")


def _printed(shop: BuildShop, need: Need) -> Iterator[Making]:
    source = shop.design.drive.branches[branch_of(need.where[0])].source
    material = source.mount_material if isinstance(source, Motor) else None
    softens = MATERIALS[material].softens if material else None
    if material and softens is not None:
        caution = f"{SOFTENING.format(material, softens - 273.15)} {FUMES}"
        yield Making("print", None, None, f"Print its mount in {material}", caution, "print", PRINTING)


def jobs(makings: Sequence[tuple[Need, Making]]) -> list[Job]:
    """The makings as jobs of one unit.

    Args:
        makings: what has to be done, and to what.
    """
    return [
        Job(
            place=place,
            verb=making.verb,
            kind="make",
            minutes=MINUTES.get(making.verb, 25.0),
            title=f"{need.words[0].upper()}{need.words[1:]}: {making.words[0].lower()}{making.words[1:]}",
            parts=(place,),
            uses=(need.kind,),
            # A keyway goes into the bore as it will be.
            after=(f"{place}:bore",) if making.verb == "keyway" else (),
            wait=making.wait,
            cautions=(making.caution,),
            tools=TOOLS.get(making.verb, ("vice",)),
        )
        for need, making in makings
        if making.verb
        for place in need.where
    ]
