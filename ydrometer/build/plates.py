"""Plates and bores first: the template, its scale, punched, drilled, deburred."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.build.workshop import BuildShop, plate_path
from ydrometer.document.stages.assembly import EYES, Job, Record, mm
from ydrometer.fit.setup import Setup

WELDED = "Welds that carry people are for licensed people, and are looked at before anybody rides."
SCALE_BAR = (99.5, 100.5)
"""mm; a page that is off by more puts holes where no wheels meet."""
LAST = "deburr"
"""The verb after which a plate is ready."""


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
    return tuple(f"{_place(plate)}:{LAST}" for plate in drilled) or ("fit:mark_out",)


def _place(plate: Setup) -> str:
    return f"{plate.plane.behind}:plate" if plate.plane.behind else "fit.plate"


def _plate(plate: Setup, cautions: tuple[str, ...]) -> Iterator[Job]:
    said, place = plate.mounting.plate, _place(plate)
    assert said is not None  # see jobs
    behind = " behind the turning stage" if plate.plane.behind else ""
    part = (plate_path(plate),)
    yield Job(
        place=place,
        verb="template",
        kind="plate",
        minutes=10,
        parts=part,
        tools=("printer", "caliper"),
        title=f"Print the template of the plate{behind} at full size; its scale bar measures 100.0 mm",
        why="A printer that fits the page shrinks it by a few per cent, and no gear meshes.",
        record=Record("scale bar", "mm", right=SCALE_BAR),
    )
    yield Job(
        place=place,
        verb="punch",
        kind="plate",
        minutes=10,
        parts=part,
        tools=("centre punch", "hammer"),
        title=f"Stick the template on the plate{behind} and punch every centre",
        after=(f"{place}:template",),
        cautions=(EYES,),
    )
    yield Job(
        place=place,
        verb="drill",
        kind="plate",
        minutes=45,
        parts=part,
        tools=("drill", "vice", "cutting oil"),
        title=f"Drill every hole undersize first, then to size{_sizes(plate)}",
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


def _sizes(plate: Setup) -> str:
    """The diameters to be drilled, the smallest first."""
    said = plate.mounting.plate
    mounts = plate.mounts.values()
    bolts = [mount.bolts.hole for mount in mounts if mount.bolts is not None]
    holes = {
        *bolts,
        *(mount.opening for mount in mounts if mount.opening),
        *([said.hole] if said and said.hole else []),
    }
    return ": " + ", ".join(mm(hole) for hole in sorted(holes)) if holes else ""


def _marked_out(shop: BuildShop) -> Job:
    return Job(
        place="fit",
        verb="mark_out",
        kind="plate",
        minutes=45,
        parts=tuple(shop.line.shafts),
        title=f"Mark out and drill where the {len(shop.line.shafts)} shafts stand, and measure from each to the next",
        why="Fit has their places, and prints a template where there is a plate.",
        tools=("ruler", "scriber", "drill"),
        cautions=_minded(shop),
    )
