"""Wiring: fuse, off switch, controllers with the design's limit; and the pack charged."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.build.safe import OPEN_WIRES, SPRINGS, has_engine
from ydrometer.build.workshop import BuildShop
from ydrometer.document.stages.assembly import Fitting, Job, Record

CHARGED = 2.0 * 3600.0
"""s that a pack takes at half its hourly rate (makers' usual advice)."""
LIMIT_SHOWN = 1.02
"""Times the design's limit that a controller may show: it counts in steps."""
STRAPS = 2
PACK_IN = "drive.supply:pack"
"""The step that puts a battery in."""
SHORT_CUT = "No tool, ring or strap across its poles; one lead at a time."
PACK = (
    "Charge lithium packs watched and in a fire-safe place, as their maker says; what hangs on the mains is for "
    "licensed people."
)


def jobs(shop: BuildShop) -> Iterator[Job]:
    """The jobs of all that carries current, and the switch that stops it.

    Args:
        shop: of the design.
    """
    supply = shop.design.drive.supply
    if supply is not None:
        yield from _supplied(shop, supply.kind)
    if has_engine(shop.design):
        yield _stop_switch(shop)
    if has_engine(shop.design) or shop.design.vehicle.payload > 0.0:
        yield _throttle(shop)


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
            uses=("controller",),
            tools=("crimp pliers",),
            title=f"Mount {of} where air reaches it{set_to}",
            cautions=_short(shop),
            why="The limit is what keeps the first hard start from burning it.",
            after=tuple(f"{source}:mount" for source in motors),
            record=Record("current limit that it shows", "A", right=(0.0, LIMIT_SHOWN * limit)) if limit else None,
        )


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
            uses=("fuse",),
            tools=("crimp pliers",),
            title=f"Put {_fuse(shop)} into the lead within 10 cm of the battery, battery still off",
            why="What lies before the fuse nothing protects.",
            cautions=_short(shop),
        )
    yield Job(
        place=path,
        verb="switch",
        kind="wiring",
        minutes=20,
        parts=(path,),
        fittings=(Fitting("switch", _switch(shop)),),
        after=(f"{path}:fuse",),
        title="Fit an off switch within reach of driver and bystander",
        cautions=_short(shop),
        why="Whoever sees it first has to be able to stop it. It is tried once the leads are joined.",
        tools=("crimp pliers",),
    )
    yield Job(
        place=path,
        verb="leads",
        kind="wiring",
        minutes=30,
        parts=(path,),
        uses=() if kind == "battery" else (kind,),
        fittings=(Fitting("cable ties", "cable ties"),),
        after=(*controllers, f"{path}:switch"),
        title=f"Join supply{', controllers' if controllers else ''} and motors; tie connectors and leads away from all "
        "that turns",
        why="A lead in a belt is torn off at the worst place.",
        tools=("cable ties", "multimeter"),
        cautions=_short(shop),
    )
    if kind == "battery":
        yield Job(
            place=path,
            verb="charge",
            kind="charge",
            minutes=10,
            parts=(path,),
            uses=(kind,),
            wait=CHARGED,
            title="Charge the battery",
            record=Record("voltage when full", "V"),
            cautions=(PACK,),
        )
        yield Job(
            place=path,
            verb="pack",
            kind="wiring",
            minutes=20,
            parts=(path,),
            uses=(kind,),
            fittings=(Fitting("strap", "strap for the battery", STRAPS),),
            after=(f"{path}:leads", f"{path}:charge"),
            title="Put the battery in its place and strap it down; switch off, connect it last",
            why="In a hard stop or a roll-over a pack that is loose tears its leads.",
            cautions=(SHORT_CUT,),
        )


def _short(shop: BuildShop) -> tuple[str, ...]:
    supply = shop.design.drive.supply
    return (OPEN_WIRES[supply.kind],) if supply else ()


def _fuse(shop: BuildShop) -> str:
    return f"the {shop.fuse.rating:.4g} A fuse" if shop.fuse else "a fuse or breaker"


def _switch(shop: BuildShop) -> str:
    """What has to carry as much as the fuse lets through."""
    return f"off switch, at least {shop.fuse.rating:.4g} A" if shop.fuse else "off switch"


def _throttle(shop: BuildShop) -> Job:
    """Of an engine, and wherever somebody rides."""
    engine = has_engine(shop.design)
    return Job(
        place="drive",
        verb="throttle",
        kind="wiring",
        minutes=20,
        parts=tuple(shop.line.sources),
        fittings=(Fitting("throttle", "throttle with its cable and return spring" if engine else "throttle"),),
        tools=("pliers",) if engine else (),
        after=tuple(f"{source}:mount" for source in shop.line.sources),
        title=f"Fit the throttle{' and its cable' if engine else ''}: let go, it springs back by itself, however the "
        "steering stands",
        why="One that hangs keeps pulling when nobody wants it to.",
        cautions=(SPRINGS,) if engine else (),
    )


def _stop_switch(shop: BuildShop) -> Job:
    return Job(
        place="drive",
        verb="stop",
        kind="wiring",
        minutes=20,
        parts=tuple(shop.line.sources),
        fittings=(Fitting("switch", "stop switch for the engine"),),
        tools=("crimp pliers",),
        after=tuple(f"{source}:mount" for source in shop.line.sources),
        title="Fit the engine's stop switch within reach of driver and bystander",
        why="Whoever sees it first has to be able to stop it. It is tried with the engine running.",
        cautions=(SPRINGS,),
    )
