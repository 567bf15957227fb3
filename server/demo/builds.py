"""The demo's builds: Sandpiper's under way with two things loose, Knot's done and looked after, Turnstone's late."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID, uuid5

from django.utils import timezone

from server.accounts.models import User
from server.builds.models import Build, InspectionEntry, PartEntry, StepEntry
from server.builds.site import Clock, bench_of, present
from server.designs.models import Vehicle
from ydrometer.build.parts_list import parts_list
from ydrometer.build.step import Step
from ydrometer.build.workshop import workshop
from ydrometer.screens.build_shown import steps_for

SLOWLY = 1.3
"""How much longer the demo's builders take than assumed."""
BETWEEN, SINCE = timedelta(minutes=25), timedelta(days=10)
"""Between two steps, and since a build was done that has been inspected since."""
LAST = "vehicle:sign_off"
PINION = "drive.branches[0].source:wheel"


@dataclass(frozen=True, slots=True)
class DemoBuild:
    """What is told of one vehicle's build.

    Attributes:
        days: until its event; None without one. people: who build. until: the last step that is done, empty where none
        is. reasons: by steps that were held back, why they were done all the same. ordered: words of the line that is
        ordered. inspections: hours, after what, and what was found.
    """

    days: int | None = None
    people: int = 1
    until: str = ""
    reasons: Mapping[str, str] = field(default_factory=dict)
    ordered: str = ""
    inspections: tuple[tuple[float, str, tuple[dict[str, str], ...]], ...] = ()


def _loosened(words: str) -> dict[str, str]:
    return {"step": PINION, "found": "loosened", "words": words}


BUILDS = {
    "1-sandpiper": DemoBuild(
        days=24,
        people=2,
        until="drive.branches[0].stages[0]:bearings",
        reasons={"fit.plate:drill": "drilled when the driven pulley had 32 teeth; the axle gets a hole of its own"},
        ordered="axle",
    ),
    "2-knot": DemoBuild(
        until=LAST,
        inspections=(
            (0.1, "first afternoon", (_loosened("the pinion's screw"),)),
            (
                1.2,
                "class heats",
                ({"step": "vehicle:road_wheels", "found": "rubbed", "words": "one wheel on the frame"},),
            ),
            (3.0, "second afternoon", (_loosened("the pinion's screw"),)),
        ),
    ),
    "3-dunlin": DemoBuild(),
    "4-turnstone": DemoBuild(days=3),
    "5-knot-light": DemoBuild(),
}


def tell(user: User, vehicle: Vehicle, folder: str) -> None:
    """Put a build into its first state.

    Args:
        user: who builds.
        vehicle: of the demo, with its newest design.
        folder: its name among the demo's vehicles.
    """
    build, now = BUILDS[folder], timezone.now().replace(second=0, microsecond=0)
    if build.days is not None:
        Build.objects.create(vehicle=vehicle, book=_book(build), author=user)
    document, clock = present(vehicle), Clock(None)
    bench = bench_of(vehicle, clock)
    steps = steps_for(document, bench)
    done = _done(steps, build.until)
    ended = now - (SINCE if build.inspections else BETWEEN)
    StepEntry.objects.bulk_create(
        _ticked(user, vehicle, step, at, build.reasons.get(step.id, "")) for step, at in _one_by_one(done, ended)
    )
    if build.ordered:
        lines = parts_list(workshop(document), bench.bin, bench.taken).lines
        line = next(line for line in lines if line.need.words.startswith(build.ordered) and line.to_buy)
        PartEntry.objects.create(
            id=uuid5(vehicle.pk, line.key),
            vehicle=vehicle,
            key=line.key,
            state="ordered",
            at=now,
            author=user,
            expected=(now + timedelta(days=5)).date(),
            paid=line.price,
        )
    for number, (hours, after, findings) in enumerate(build.inspections):
        InspectionEntry.objects.create(
            id=_inspection(vehicle, number),
            vehicle=vehicle,
            at=now - timedelta(days=9 - 3 * number),
            author=user,
            document={"hours": hours, "after": after, "findings": list(findings)},
        )


def _book(build: DemoBuild) -> dict[str, Any]:
    return {"event": _event(build), "people": build.people}


def _event(build: DemoBuild) -> str:
    day = datetime.now() + timedelta(days=build.days or 0)
    return day.strftime("%Y-%m-%dT09:00")


def _done(steps: list[Step], until: str) -> list[Step]:
    """All steps up to one."""
    ids = [step.id for step in steps]
    return steps[: ids.index(until) + 1] if until else []


def _one_by_one(steps: list[Step], ended: datetime) -> Iterator[tuple[Step, datetime]]:
    """When each was done, one after the other, with what cures left to cure; the last one at an end."""
    begun: dict[str, timedelta] = {}
    moment = timedelta(0)
    for step in steps:
        over = (begun[s.id] + timedelta(seconds=s.wait) for s in steps if s.id in step.needs and s.id in begun)
        moment = max([moment + BETWEEN, *over])
        begun[step.id] = moment
    yield from ((step, ended - moment + begun[step.id]) for step in steps)


def _ticked(user: User, vehicle: Vehicle, step: Step, at: datetime, reason: str) -> StepEntry:
    value = "99.6" if step.id.startswith("fit.plate:template") else ""
    return StepEntry(
        id=uuid5(vehicle.pk, step.id),
        vehicle=vehicle,
        step=step.id,
        doing="done",
        at=at,
        author=user,
        value=value,
        reason=reason,
        minutes=round(SLOWLY * step.minutes),
        about=step.about,
        title=step.title,
        made_from=list(step.made_from),
    )


def _inspection(vehicle: Vehicle, number: int) -> UUID:
    return uuid5(vehicle.pk, f"inspection {number}")


def untouched(vehicle: Vehicle, folder: str) -> bool:
    """Whether a build is as it was told; its event may be another day's."""
    build = BUILDS[folder]
    inspections = {_inspection(vehicle, number) for number in range(len(build.inspections))}
    if set(vehicle.inspections.values_list("pk", flat=True)) != inspections or vehicle.photos.exists():
        return False
    own = {uuid5(vehicle.pk, step) for step in vehicle.step_entries.values_list("step", flat=True)}
    if set(vehicle.step_entries.values_list("pk", flat=True)) != own or vehicle.part_entries.count() != bool(
        build.ordered
    ):
        return False
    versions = list(Build.objects.filter(vehicle=vehicle).values_list("version", flat=True))
    return versions == ([] if build.days is None else [1])


def renew(vehicle: Vehicle, folder: str) -> None:
    """Put the event as many days from now as when the demo was loaded."""
    build = BUILDS[folder]
    Build.objects.filter(vehicle=vehicle).update(book=_book(build))
