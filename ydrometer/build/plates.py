"""Plates and bores first: the template, its scale, punched, drilled, deburred."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ydrometer.build.workshop import BuildShop, plate_path
from ydrometer.document.stages.assembly import EYES, Job, Record, mm
from ydrometer.fit.setup import Setup

WELDED = "Welds that carry people are for licensed people, and are looked at before anybody rides."
SCALE_BAR = (99.5, 100.5)
"""mm; a page that is off by more puts holes where no wheels meet."""
LAST = "deburr"
"""The verb after which a plate is ready."""
SET_UP_MIN, HOLE_MIN, SLOT_MIN = 10.0, 4.0, 15.0
"""Minutes to set up for drilling, for a hole drilled twice, and for a slot: a hole at each end and filed between."""


def jobs(shop: BuildShop) -> Iterator[Job]:
    """The jobs of every plate; without one the places of the shafts are marked out on whatever carries them.

    Args:
        shop: of the design.
    """
    drilled = [plate for plate in shop.plates if plate.mounting.plate is not None]
    for plate in drilled:
        yield from _plate(plate, _minded(shop))
    if not drilled:
        yield _marked_out(shop)


def ready(shop: BuildShop) -> tuple[str, ...]:
    """Ids of the jobs after which shafts have something to stand in."""
    drilled = [plate for plate in shop.plates if plate.mounting.plate is not None]
    return tuple(f"{place_of(plate)}:{LAST}" for plate in drilled) or ("fit:mark_out",)


def place_of(plate: Setup) -> str:
    """The place of the steps that make a plate."""
    return f"{plate.plane.behind}:plate" if plate.plane.behind else "fit.plate"


def _plate(plate: Setup, cautions: tuple[str, ...]) -> Iterator[Job]:
    said, place = plate.mounting.plate, place_of(plate)
    assert said is not None  # see jobs
    behind = " behind the turning stage" if plate.plane.behind else ""
    part = (plate_path(plate),)
    yield printed(place, f"the plate{behind}", part)
    yield Job(
        place=place,
        verb="punch",
        kind="plate",
        minutes=10,
        parts=part,
        uses=("plate",),
        tools=("centre punch", "hammer"),
        title=f"Stick the template on the plate{behind} and punch every centre",
        after=(f"{place}:template",),
        cautions=(EYES,),
    )
    holes, slots = _openings(plate)
    filed = f"; a hole at each end of every slot, sawn and filed between: {_listed(slots)} wide" if slots else ""
    yield Job(
        place=place,
        verb="drill",
        kind="plate",
        minutes=drilling_time(len(holes), len(slots)),
        parts=part,
        tools=("drill", "vice", "cutting oil", *(("saw", "file") if slots else ())),
        title=f"Drill every hole undersize first, then to size{': ' if holes else ''}{_listed(holes)}{filed}",
        after=(f"{place}:punch",),
        why="A small hole follows the punch mark, a large drill wanders off it.",
        cautions=cautions,
    )
    yield Job(
        place=place,
        verb=LAST,
        kind="plate",
        minutes=15,
        parts=part,
        tools=("countersink", "file"),
        title=f"Deburr both faces of the plate{behind} and try a screw in every hole",
        after=(f"{place}:drill",),
        cautions=(EYES,),
    )


def _minded(shop: BuildShop) -> tuple[str, ...]:
    """What to mind while holes are made; more where somebody rides."""
    return (EYES, WELDED) if shop.design.vehicle.payload else (EYES,)


def printed(place: str, what: str, parts: tuple[str, ...]) -> Job:
    """The template of something, printed and measured.

    Args:
        place: of the job.
        what: it is of, in words.
        parts: paths of the design.
    """
    return Job(
        place=place,
        verb="template",
        kind="plate",
        minutes=10,
        parts=parts,
        tools=("printer", "caliper"),
        title=f"Print the template of {what} at full size; its scale bar measures 100.0 mm",
        why="A printer that fits the page shrinks it by a few per cent, and no gear meshes.",
        record=Record("scale bar", "mm", right=SCALE_BAR),
    )


def drilling_time(holes: int, slots: int = 0) -> float:
    """Minutes that drilling takes.

    Args:
        holes: how many there are.
        slots: likewise.
    """
    return SET_UP_MIN + HOLE_MIN * holes + SLOT_MIN * slots


def _openings(plate: Setup) -> tuple[list[float], list[float]]:
    """Diameters of all that is drilled for shafts, m, and widths of what is a slot; the grid is in the plate."""
    holes: list[float] = []
    slots: list[float] = []
    for mount in plate.mounts.values():
        through = [mount.opening] if mount.opening else []
        through += [mount.bolts.hole] * mount.bolts.count if mount.bolts is not None else []
        (holes if mount.slot is None else slots).extend(through)
    return holes, slots


def _listed(sizes: Sequence[float]) -> str:
    """Sizes, each once, the smallest first."""
    return ", ".join(mm(size) for size in sorted(set(sizes)))


def _marked_out(shop: BuildShop) -> Job:
    return Job(
        place="fit",
        verb="mark_out",
        kind="plate",
        minutes=drilling_time(len(shop.line.shafts)),
        parts=tuple(shop.line.shafts),
        title=f"Mark out and drill where the {len(shop.line.shafts)} shafts stand, and measure from each to the next",
        why="Fit has their places, and prints a template where there is a plate.",
        tools=("ruler", "scriber", "drill"),
        cautions=_minded(shop),
    )
