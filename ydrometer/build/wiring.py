"""Wiring: fuse, off switch, controllers with the design's limit; and the pack charged."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.build.workshop import BuildShop
from ydrometer.document.stages.assembly import Job, Record

CHARGED = 2.0 * 3600.0
"""s that a pack takes at half its hourly rate (makers' usual advice)."""
SHORT = "Battery disconnected while wires are open; a short across it burns."
PACK = (
    "Charge lithium packs watched and in a fire-safe place, as their maker says; what hangs on the mains is for "
    "licensed people."
)
SAFE_ENGINE = "Cold engine, out of doors; never above its safe speed, and never defeat the governor."


def jobs(shop: BuildShop) -> Iterator[Job]:
    """The jobs of all that carries current, and the switch that stops it.

    Args:
        shop: of the design.
    """
    supply = shop.design.drive.supply
    if supply is not None:
        yield from _supplied(shop, supply.kind)
    if supply is None:
        yield _stop_switch(shop)


def per_unit(shop: BuildShop) -> Iterator[Job]:
    """The controllers of one drive unit.

    Args:
        shop: of the design.
    """
    for b, branch in enumerate(shop.design.drive.branches):
        if branch.controller is None:
            continue
        path = f"drive.branches[{b}].controller"
        limit, each = branch.controller.current_limit, branch.count
        of = "the controller" if each == 1 else f"each of the {each} controllers"
        set_to = f" and set its current limit to {limit:.4g} A" if limit else ", its current limit as its maker says"
        motors = [source for source in shop.line.sources if source.startswith(f"drive.branches[{b}].")]
        yield Job(
            place=path,
            verb="set",
            kind="wiring",
            minutes=20 * each,
            parts=(path,),
            tools=("crimp pliers",),
            title=f"Mount {of} where air reaches it{set_to}",
            cautions=(SHORT,),
            why="The limit is what keeps the first hard start from burning it.",
            after=tuple(f"{source}:mount" for source in motors),
            record=Record("current limit that it shows", "A") if limit else None,
        )


def ids(shop: BuildShop) -> tuple[str, ...]:
    """Ids of all jobs of one unit and of the vehicle that come before power."""
    return tuple(job.id for job in (*jobs(shop), *per_unit(shop)))


def _supplied(shop: BuildShop, kind: str) -> Iterator[Job]:
    controllers = tuple(job.id for job in per_unit(shop))
    path = "drive.supply"
    if kind == "battery":
        yield Job(
            place=path,
            verb="fuse",
            kind="wiring",
            minutes=20,
            parts=(path,),
            tools=("crimp pliers",),
            title=f"Put {_fuse(shop)} into the lead within 10 cm of the battery, battery still off",
            why="What lies before the fuse nothing protects.",
            cautions=(SHORT,),
        )
    yield Job(
        place=path,
        verb="switch",
        kind="wiring",
        minutes=20,
        parts=(path,),
        after=(f"{path}:fuse",),
        title="Fit an off switch within reach of driver and bystander, and try it: everything is dead",
        cautions=(SHORT,),
        why="Whoever sees it first has to be able to stop it.",
        tools=("crimp pliers", "multimeter"),
    )
    yield Job(
        place=path,
        verb="leads",
        kind="wiring",
        minutes=30,
        parts=(path,),
        after=(*controllers, f"{path}:switch"),
        title="Join supply, controllers and motors; tie connectors and leads away from all that turns",
        why="A lead in a belt is torn off at the worst place.",
        tools=("cable ties", "multimeter"),
        cautions=(SHORT,),
    )
    if kind == "battery":
        yield Job(
            place=path,
            verb="charge",
            kind="charge",
            minutes=10,
            parts=(path,),
            wait=CHARGED,
            title="Charge the battery",
            record=Record("voltage when full", "V"),
            cautions=(PACK,),
        )


def _fuse(shop: BuildShop) -> str:
    fuse = getattr(shop.design.drive.supply, "fuse", None)
    return f"the {fuse.rating:.4g} A fuse" if fuse else "a fuse or breaker"


def _stop_switch(shop: BuildShop) -> Job:
    return Job(
        place="drive",
        verb="stop",
        kind="wiring",
        minutes=20,
        parts=tuple(shop.line.sources),
        title="Fit the engine's stop switch within reach of driver and bystander, and try it: no spark",
        why="Whoever sees it first has to be able to stop it.",
        cautions=(SAFE_ENGINE,),
    )
