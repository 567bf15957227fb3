"""All steps of a design in an order that can be followed."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import replace

from ydrometer.build import jobs, power, wiring
from ydrometer.build.clashing import with_clashes
from ydrometer.build.facts import facts
from ydrometer.build.order import in_order
from ydrometer.build.step import Step
from ydrometer.build.workshop import BuildShop
from ydrometer.document.stages.assembly import Job, Loose

OF_VEHICLE = "vehicle"
"""How places begin that the whole vehicle has once."""
MOST_UNITS = 4
"""Drive units that have steps of their own; of more than that one step is for all."""


def steps_of(shop: BuildShop, making: Sequence[Job] = ()) -> list[Step]:
    """The steps that make a design.

    Args:
        shop: of the design.
        making: jobs on parts before they fit, of one unit, such as bores (`making.jobs`).

    Returns:
        Steps, each behind all that it needs, with ids that stay while their places do. What one opens exactly one later
        step closes, and nothing is needed after it is buried.
    """
    of_unit = [job for job in making if not job.place.startswith(OF_VEHICLE)]
    once = [*of_unit, *jobs.of_unit(shop)]
    each = _locked([*_needing_parts(once, of_unit), *power.per_unit(shop)])
    of_vehicle = [job for job in making if job not in of_unit]
    whole = _pack_last(each, list(_needing_parts([*of_vehicle, *jobs.of_vehicle(shop)], of_vehicle)))
    ready = tuple(job.id for job in (*each, *whole) if job.kind != "power")
    return with_clashes(shop, in_order(_linked(shop, each, [*whole, *power.jobs(shop, ready)])))


def _needing_parts(jobs: Iterable[Job], making: Sequence[Job]) -> Iterator[Job]:
    """Whatever handles a part comes behind what has to be done to it."""
    own = {job.id for job in making}
    for job in jobs:
        first = tuple(maker.id for maker in making if job.id not in own and set(maker.parts) & set(job.parts))
        yield replace(job, after=(*job.after, *first))


def _locked(jobs: Sequence[Job]) -> list[Job]:
    """Locker comes when all of a unit is set, and the guards behind it: it is put on screws that they cover."""
    locker = tuple(job.id for job in jobs if job.kind == "locker")
    before = tuple(job.id for job in jobs if job.kind not in ("locker", "guard", "power"))
    after = {"locker": before, "guard": locker}
    return [replace(job, after=(*job.after, *after.get(job.kind, ()))) for job in jobs]


def _pack_last(each: Sequence[Job], whole: Sequence[Job]) -> list[Job]:
    """The pack goes in when no hand has to go in any more: until then it is disconnected."""
    others = tuple(job.id for job in (*each, *whole) if job.kind != "power" and job.id != wiring.PACK_IN)
    return [replace(job, after=(*job.after, *others)) if job.id == wiring.PACK_IN else job for job in whole]


def _linked(shop: BuildShop, each: Sequence[Job], whole: Sequence[Job]) -> list[Step]:
    """Steps of all units: what one unit refers to is its own, what the vehicle refers to is that of every unit."""
    units, words = shop.design.drive.units, _words(shop)
    made_from = {job.id: facts(shop, job.kind, job.parts) for job in (*each, *whole)}
    numbers = range(1, units + 1) if 1 < units <= MOST_UNITS else (0,)
    alone: dict[str, tuple[str, ...]] = {job.id: (job.id,) for job in whole}
    steps = []
    for number in numbers:
        of_unit = {job.id: (_of_unit(job.id, number),) for job in each}
        steps += [_step(job, number, units, {**alone, **of_unit}, words, made_from[job.id]) for job in each]
    every = {job.id: tuple(_of_unit(job.id, number) for number in numbers) for job in each}
    return steps + [_step(job, 0, 1, alone | every, words, made_from[job.id]) for job in whole]


def _of_unit(id: str, number: int) -> str:
    """Of the second unit on an id has the unit's number."""
    return f"{id}@{number}" if number > 1 else id


def _step(
    job: Job,
    unit: int,
    units: int,
    ids: Mapping[str, tuple[str, ...]],
    words: dict[str, str],
    made_from: tuple[str, ...],
) -> Step:
    needs = dict.fromkeys(id for after in (*job.after, *job.buries) for id in ids.get(after, ()))
    suffix = f" (unit {unit})" if unit else f" (on each of the {units} units)" if units > 1 else ""
    return Step(
        id=_of_unit(job.id, unit),
        title=job.title + suffix,
        kind=job.kind,
        place=job.place,
        minutes=job.minutes * (1 if unit else units),
        why=job.why,
        unit=unit,
        needs=tuple(needs),
        opens=tuple(
            Loose(_of_unit(loose.id, unit), loose.words + (f", unit {unit}" if unit else "")) for loose in job.opens
        ),
        closes=tuple(_of_unit(id, unit) for id in job.closes),
        buries=tuple(id for buried in job.buries for id in ids.get(buried, ())),
        wait=job.wait,
        parts=tuple(dict.fromkeys(job.parts)),
        uses=tuple(dict.fromkeys((*job.uses, *(fitting.kind for fitting in job.fittings)))),
        about=", ".join(dict.fromkeys(words[part] for part in job.parts if part in words)),
        made_from=made_from,
        tools=job.tools,
        record=job.record,
        cautions=job.cautions,
    )


def _words(shop: BuildShop) -> dict[str, str]:
    """What a step may be made for: wheels, and stages that have none. When one of these words changes, the step was
    done for something else.
    """
    boxes = [between for between in shop.line.stages if not between.stage.members]
    stages = {between.path: f"{between.stage.noun} {between.stage.sizes_words}" for between in boxes}
    return stages | {wheel.name: wheel.words for wheel in shop.line.wheels}
