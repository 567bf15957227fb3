"""All jobs of a design: those of one drive unit, and those that the whole vehicle has once."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from ydrometer.build import adapters, motors, plates, power, shafts, wiring
from ydrometer.build.line import Between
from ydrometer.build.workshop import BuildShop
from ydrometer.document.stages.assembly import Job


def of_unit(shop: BuildShop) -> Iterator[Job]:
    """The jobs of one drive unit before it is powered, but for what has to be done to its parts.

    Args:
        shop: of the design.
    """
    yield from plates.jobs(shop)
    yield from adapters.jobs(shop)
    yield from motors.jobs(shop)
    yield from shafts.jobs(shop)
    yield from _stages(shop)
    yield from wiring.per_unit(shop)


def of_vehicle(shop: BuildShop) -> Iterator[Job]:
    """The jobs that the whole vehicle has once, before it is powered.

    Args:
        shop: of the design.
    """
    yield power.road_wheels(shop)
    yield from power.brakes(shop)
    yield from wiring.jobs(shop)


def _stages(shop: BuildShop) -> Iterator[Job]:
    """The jobs of every stage, the first of each behind what its shafts need, and behind whoever moves one of them."""
    for between in shop.line.stages:
        hands = shop.hands(between)
        first, *others = (_at_stage(shop, between, job) for job in between.stage.jobs(hands))
        own = between.driven if between.driven in shop.line.hidden else ""
        on = [shafts.put_on(shop, shaft) for shaft in between.shafts if shaft != own]
        mounted = [f"{shaft}:mount" for shaft in between.drivers if shaft in shop.line.sources]
        moved = [f"{path}:tighten" for path in _movers(shop, between.path)]
        yield replace(first, after=(*first.after, *filter(None, on), *mounted, *moved))
        yield from others


def _at_stage(shop: BuildShop, between: Between, job: Job) -> Job:
    """A job with what is handled there: all wheels, for with others it is done once more; of a box the box itself."""
    stage = between.stage
    box = () if stage.members else (stage.whole_part or stage.kind,)
    # Wheels are brought in line on shafts that do not wander themselves.
    standing = [shafts.standing(shop, shaft) for shaft in between.shafts] if job.verb == "line_up" else []
    names = (wheel.name for wheel in shop.line.of(between.path))
    return replace(
        job, parts=(*job.parts, *names), uses=(*job.uses, *box), after=(*job.after, *(id for id in standing if id))
    )


def _movers(shop: BuildShop, path: str) -> Iterator[str]:
    """Other stages for which a shaft of this one is moved: they are set before it."""
    between = next(entry for entry in shop.line.stages if entry.path == path)
    movers = {shop.moved_by(shaft) for shaft in between.shafts}
    return (mover for mover in movers if mover and mover != path)
